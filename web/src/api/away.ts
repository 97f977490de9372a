import { useQuery } from "@tanstack/react-query";
import { api, read, type Schemas } from "./client";
import { useChange, usePath } from "./hooks";

type Away = Schemas["AwayOut"];
type Path = { account: string };

/** The door that each sort of thing is put back at. */
const doors: Record<Away["kind"], (path: Path, id: number) => Promise<unknown>> = {
  areas: (path, area_id) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/put-back", {
        params: { path: { ...path, area_id } },
      }),
    ),
  products: (path, product_id) =>
    read(
      api.POST("/api/accounts/{account}/products/{product_id}/put-back", {
        params: { path: { ...path, product_id } },
      }),
    ),
  machines: (path, machine_id) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/put-back", {
        params: { path: { ...path, machine_id } },
      }),
    ),
  vessels: (path, vessel_id) =>
    read(
      api.POST("/api/accounts/{account}/vessels/{vessel_id}/put-back", {
        params: { path: { ...path, vessel_id } },
      }),
    ),
  mixes: (path, mix_id) =>
    read(
      api.POST("/api/accounts/{account}/mixes/{mix_id}/put-back", { params: { path: { ...path, mix_id } } }),
    ),
};

/** What was put away, the last first. */
export function useAway() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "away"],
    queryFn: () => read(api.GET("/api/accounts/{account}/away", { params: { path } })),
  });
}

export function usePutBack() {
  return useChange((path, { kind, id }: Away) => doors[kind](path, id));
}
