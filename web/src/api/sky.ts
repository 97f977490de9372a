import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export function useSky(site_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "of", site_id],
    queryFn: () => read(api.GET("/api/accounts/{account}/sky", { params: { path, query: { site_id } } })),
    refetchInterval: 300_000,
  });
}

export function useStrip(area_id: number | null, weeks: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "strip", area_id, weeks],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/sky/strip", {
          params: { path, query: { area_id: area_id!, weeks } },
        }),
      ),
    enabled: area_id !== null,
    placeholderData: keepPreviousData,
  });
}

export function useLocks(area_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "locks", area_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/sky/locks", { params: { path, query: { area_id } } })),
    refetchInterval: 300_000,
  });
}

export function useSkyDay(area_id: number, on: string | null) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "day", area_id, on],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/sky/day", { params: { path, query: { area_id, on: on! } } })),
    enabled: on !== null,
    placeholderData: keepPreviousData,
  });
}

export type LongField = "air" | "humidity" | "rain" | "wind" | "soil";

export function useLong(field: LongField, site_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "long", field, site_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/sky/long", { params: { path, query: { field, site_id } } })),
    placeholderData: keepPreviousData,
    staleTime: 300_000,
  });
}

export function useClocks() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "clocks"],
    queryFn: () => read(api.GET("/api/accounts/{account}/sky/clocks", { params: { path } })),
  });
}

/** Hours fit to put products down on an area, as they are picked. */
export function useFit(body: Schemas["FitIn"] | null) {
  return useAnswer("fit", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/sky/hours", { params: { path }, body: asked, signal })),
  );
}

export function useSchools(area_id: number | null, disease: string | null, year: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "schools", area_id, disease, year],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/sky/schools", {
          params: { path, query: { area_id: area_id!, disease: disease!, year } },
        }),
      ),
    enabled: area_id !== null && disease !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

// --- where weather comes from ----------------------------------------------------------------------------

export function useStation(site_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "station", site_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/sky/station", { params: { path, query: { site_id } } })),
    // while it is being asked, how far that is
    refetchInterval: (query) => (query.state.data?.station?.asking ? 1_000 : false),
  });
}

export function useSaveStation(site_id: number) {
  return useChange((path, body: Schemas["StationIn"]) =>
    read(send.PUT("/api/accounts/{account}/sky/station", { params: { path, query: { site_id } }, body })),
  );
}

export function useFetchNow(site_id: number) {
  return useChange((path) =>
    read(api.POST("/api/accounts/{account}/sky/station/fetch", { params: { path, query: { site_id } } })),
  );
}

export interface WeatherFile {
  file: File;
  mapping: Schemas["MappingIn"] | null;
  year: number | null;
}

/** A file goes as a form; the client's typed body is JSON, so that it is told how to send it. */
function formOf({ file, mapping, year }: WeatherFile) {
  return {
    body: { file: "", mapping: "" },
    bodySerializer: () => {
      const form = new FormData();
      form.append("file", file);
      if (mapping) form.append("mapping", JSON.stringify(mapping));
      if (year !== null) form.append("year", String(year));
      return form;
    },
  };
}

export function usePreviewWeather(site_id: number) {
  const path = usePath();
  return useMutation({
    mutationFn: (given: WeatherFile) =>
      read(
        api.POST("/api/accounts/{account}/sky/station/preview", {
          params: { path, query: { site_id } },
          ...formOf(given),
        }),
      ),
  });
}

export function useKeepWeather(site_id: number) {
  return useChange((path, given: WeatherFile) =>
    read(
      send.POST("/api/accounts/{account}/sky/station/keep", {
        params: { path, query: { site_id } },
        ...formOf(given),
      }),
    ),
  );
}

export function useAddReading() {
  return useChange((path, body: Schemas["HandIn"]) =>
    read(send.POST("/api/accounts/{account}/sky/readings", { params: { path }, body })),
  );
}

export function useRemoveReading() {
  return useChange((path, reading_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/sky/readings/{reading_id}", {
        params: { path: { ...path, reading_id } },
      }),
    ),
  );
}

// --- how areas are watched -------------------------------------------------------------------------------

export function useWatches(area_id: number | null) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sky", "watch", area_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/sky/areas/{area_id}/watch", {
          params: { path: { ...path, area_id: area_id! } },
        }),
      ),
    enabled: area_id !== null,
    placeholderData: keepPreviousData,
  });
}

export function useSaveWatch(area_id: number) {
  return useChange((path, given: { disease: string; body: Schemas["WatchIn"] }) =>
    read(
      send.PUT("/api/accounts/{account}/sky/areas/{area_id}/watch/{disease}", {
        params: { path: { ...path, area_id, disease: given.disease } },
        body: given.body,
      }),
    ),
  );
}

export function useSaveHold(area_id: number, active: string) {
  return useChange((path, body: Schemas["HoldIn"]) =>
    read(
      send.PUT("/api/accounts/{account}/sky/areas/{area_id}/holds/{active}", {
        params: { path: { ...path, area_id, active } },
        body,
      }),
    ),
  );
}

export function useAddRhythm() {
  return useChange((path, body: Schemas["RhythmIn"]) =>
    read(send.POST("/api/accounts/{account}/sky/rhythms", { params: { path }, body })),
  );
}

export function useRemoveRhythm() {
  return useChange((path, rhythm_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/sky/rhythms/{rhythm_id}", {
        params: { path: { ...path, rhythm_id } },
      }),
    ),
  );
}

// --- what is due -----------------------------------------------------------------------------------------

export function useDue() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "due"],
    queryFn: () => read(api.GET("/api/accounts/{account}/season/due", { params: { path } })),
    refetchInterval: 300_000,
  });
}

export function useDueWhole(area_id: number, disease: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "due", area_id, disease],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/season/due/{area_id}/{disease}", {
          params: { path: { ...path, area_id, disease } },
        }),
      ),
    retry: false,
  });
}

export function usePlanDue() {
  return useChange((path, body: Schemas["PlanDueIn"]) =>
    read(send.POST("/api/accounts/{account}/season/planned", { params: { path }, body })),
  );
}

export function useDropPlanned() {
  return useChange((path, planned_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/season/planned/{planned_id}", {
        params: { path: { ...path, planned_id } },
      }),
    ),
  );
}

export function useStartDue() {
  return useChange((path, body: Schemas["StartDueIn"]) =>
    read(send.POST("/api/accounts/{account}/season/start", { params: { path }, body })),
  );
}
