import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange } from "./hooks";

export type Sample = Schemas["SoilReadingOut"];

export function useAddSample(area_id: number) {
  return useChange((path, body: Schemas["SoilReadingIn"]) =>
    read(
      send.POST("/api/accounts/{account}/areas/{area_id}/soil", {
        params: { path: { ...path, area_id } },
        body,
      }),
    ),
  );
}

export function useRemoveSample(area_id: number) {
  return useChange((path, reading_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/areas/{area_id}/soil/{reading_id}", {
        params: { path: { ...path, area_id, reading_id } },
      }),
    ),
  );
}

/** The gypsum that an area's sodium asks for. */
export function useSodium(area_id: number, body: Schemas["SodiumIn"]) {
  return useAnswer("sodium", body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/sodium", {
        params: { path: { ...path, area_id } },
        body: asked,
        signal,
      }),
    ),
  );
}
