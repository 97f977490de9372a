import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read } from "./client";
import { usePath } from "./hooks";

/** Did it work: of one year, or of this one; of one area, or of all. */
export function useOutcomes(year?: number, area_id?: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "outcomes", year, area_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/outcomes", { params: { path, query: { year, area_id } } })),
    placeholderData: keepPreviousData,
  });
}
