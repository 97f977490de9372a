import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export type Event = Schemas["EventOut"];

export function useStory(area_id: number, whole: boolean) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "story", area_id, whole],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/areas/{area_id}/story", {
          params: { path: { ...path, area_id }, query: { whole } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useDoings() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "works", "kinds"],
    queryFn: () => read(api.GET("/api/accounts/{account}/works/kinds", { params: { path } })),
    staleTime: Infinity,
  });
}

/** What stands against work as it is typed. */
export function useCheckWork(body: Schemas["WorkIn"] | null) {
  return useAnswer("work-check", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/works/check", { params: { path }, body: asked, signal })),
  );
}

export function useNoteWork() {
  return useChange((path, body: Schemas["WorkIn"]) =>
    read(send.POST("/api/accounts/{account}/works", { params: { path }, body })),
  );
}

export function useStrikeWork() {
  return useChange((path, { id, why }: { id: number; why: string }) =>
    read(
      api.POST("/api/accounts/{account}/works/{work_id}/strike", {
        params: { path: { ...path, work_id: id } },
        body: { why },
      }),
    ),
  );
}

/** What happened on a site, or on every area of the account. */
export function useWholeStory(site_id: number | null, whole: boolean) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "story", "of", site_id, whole],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/story", {
          params: { path, query: { site_id: site_id ?? undefined, whole } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}
