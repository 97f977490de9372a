import { useQuery } from "@tanstack/react-query";
import { api, read } from "./client";
import { usePath } from "./hooks";

/** The shelf against the season: how old it is, what is needed, what to buy. */
export function useStores() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "stores"],
    queryFn: () => read(api.GET("/api/accounts/{account}/stores", { params: { path } })),
  });
}
