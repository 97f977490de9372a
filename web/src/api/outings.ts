import { useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export type Week = Schemas["WeekOut"];
export type Proposed = Schemas["ProposedOut"];
export type Outing = Schemas["FollowedOut"];
export type Act = Schemas["OutingActOut"];
export type Ask = Schemas["OutingAskIn"];

/** An outing of all that is due, on the day that fits it best. */
export const EVERYTHING: Ask = { leave: [], site_ids: [], clock: "", people: 1, swaps: [], order: [] };

/** The next seven days, and the outing that comes next. */
export function useWeek() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "week"],
    queryFn: () => read(api.GET("/api/accounts/{account}/outings/week", { params: { path } })),
  });
}

/** What is due on a day as one outing. */
export function useProposed(body: Ask) {
  return useAnswer("proposed-outing", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/outings/propose", { params: { path }, body: asked, signal })),
  );
}

export function useOutings() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "outings"],
    queryFn: () => read(api.GET("/api/accounts/{account}/outings", { params: { path } })),
  });
}

export function useOuting(outing_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "outing", outing_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/outings/{outing_id}", { params: { path: { ...path, outing_id } } }),
      ),
    enabled: Number.isFinite(outing_id),
  });
}

/** Take an outing up as it is proposed. */
export function useTakeOuting() {
  return useChange((path, body: Schemas["TakeOutingIn"]) =>
    read(send.POST("/api/accounts/{account}/outings", { params: { path }, body })),
  );
}

/** Make a job of an outing a round. */
export function useStartJob() {
  return useChange(
    (
      path,
      { outing_id, position, ...body }: { outing_id: number; position: number } & Schemas["StartJobIn"],
    ) =>
      read(
        send.POST("/api/accounts/{account}/outings/{outing_id}/jobs/{position}/start", {
          params: { path: { ...path, outing_id, position } },
          body,
        }),
      ),
  );
}

/** Note water or mowing of an outing as done. */
export function useNoteJob() {
  return useChange((path, { outing_id, position }: { outing_id: number; position: number }) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/jobs/{position}/done", {
        params: { path: { ...path, outing_id, position } },
      }),
    ),
  );
}

export function useSkipStop(outing_id: number) {
  return useChange((path, { stop_id, ...body }: { stop_id: number } & Schemas["SkipIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/stops/{stop_id}/skip", {
        params: { path: { ...path, outing_id, stop_id } },
        body,
      }),
    ),
  );
}

/** Skip what is left of a job. */
export function useSkipJob(outing_id: number) {
  return useChange((path, { position, ...body }: { position: number } & Schemas["SkipIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/jobs/{position}/skip", {
        params: { path: { ...path, outing_id, position } },
        body,
      }),
    ),
  );
}

export function useCloseAct(outing_id: number) {
  return useChange((path, body: Schemas["ClosingIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/closing", {
        params: { path: { ...path, outing_id } },
        body,
      }),
    ),
  );
}

/** Begin an outing, go on with it after it stood still, or end it. */
export function useMoveOuting(outing_id: number) {
  return useChange((path, what: "go" | "go-on" | "finish" | "give-up") =>
    read(
      api.POST(`/api/accounts/{account}/outings/{outing_id}/${what}`, {
        params: { path: { ...path, outing_id } },
      }),
    ),
  );
}

/** Put the rest of an outing in order anew, for as many people as go on. */
export function useOrderAgain(outing_id: number) {
  return useChange((path, body: Schemas["AgainIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/again", {
        params: { path: { ...path, outing_id } },
        body,
      }),
    ),
  );
}

/** Let an outing stand still, and say why. */
export function usePause(outing_id: number) {
  return useChange((path, body: Schemas["PauseIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/pause", {
        params: { path: { ...path, outing_id } },
        body,
      }),
    ),
  );
}

/** Let another machine do a job. */
export function useJobMachine(outing_id: number) {
  return useChange((path, { position, ...body }: { position: number } & Schemas["JobMachineIn"]) =>
    read(
      api.POST("/api/accounts/{account}/outings/{outing_id}/jobs/{position}/machine", {
        params: { path: { ...path, outing_id, position } },
        body,
      }),
    ),
  );
}

/** The routes, each in driving order. */
export function useRoutes() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "routes"],
    queryFn: () => read(api.GET("/api/accounts/{account}/outings/routes", { params: { path } })),
  });
}

/** Add a route, or change one. */
export function useSaveRoute(route_id?: number) {
  return useChange((path, body: Schemas["RouteIn"]) =>
    route_id === undefined
      ? read(send.POST("/api/accounts/{account}/outings/routes", { params: { path }, body }))
      : read(
          send.PUT("/api/accounts/{account}/outings/routes/{route_id}", {
            params: { path: { ...path, route_id } },
            body,
          }),
        ),
  );
}

export function useRemoveRoute() {
  return useChange((path, route_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/outings/routes/{route_id}", {
        params: { path: { ...path, route_id } },
      }),
    ),
  );
}

/** Say how long it takes between two sites. */
export function useSayWay() {
  return useChange((path, body: Schemas["WayIn"]) =>
    read(api.POST("/api/accounts/{account}/outings/ways", { params: { path }, body })),
  );
}

/** The year of all sites. */
export function useSitesYear() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sites-year"],
    queryFn: () => read(api.GET("/api/accounts/{account}/outings/sites", { params: { path } })),
  });
}

/** A site on a page. */
export function useSitePage(site_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "site", site_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/outings/sites/{site_id}", {
          params: { path: { ...path, site_id } },
        }),
      ),
    enabled: Number.isFinite(site_id),
  });
}

/** What one's own calendar holds. */
export function useReminders() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "reminders"],
    queryFn: () => read(api.GET("/api/accounts/{account}/outings/reminders", { params: { path } })),
  });
}

export function useChooseReminders() {
  return useChange((path, body: Schemas["RemindersIn"]) =>
    read(api.POST("/api/accounts/{account}/outings/reminders", { params: { path }, body })),
  );
}

/** Give one's calendar a new address, or revoke it. */
export function useCalendarAddress() {
  return useChange((path, give: boolean) =>
    give
      ? read(api.POST("/api/accounts/{account}/outings/reminders/address", { params: { path } }))
      : read(api.DELETE("/api/accounts/{account}/outings/reminders/address", { params: { path } })),
  );
}
