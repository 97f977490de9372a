import { useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export type Week = Schemas["WeekOut"];
export type Proposed = Schemas["ProposedOut"];
export type Outing = Schemas["FollowedOut"];
export type Act = Schemas["OutingActOut"];
export type Ask = Schemas["OutingAskIn"];

/** An outing of all that is due, on the day that fits it best. */
export const EVERYTHING: Ask = { leave: [], site_ids: [], clock: "", people: 1 };

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

/** Begin an outing, put the rest of it in order anew, or end it. */
export function useMoveOuting(outing_id: number) {
  return useChange((path, what: "go" | "again" | "finish" | "give-up") =>
    read(
      api.POST(`/api/accounts/{account}/outings/{outing_id}/${what}`, {
        params: { path: { ...path, outing_id } },
      }),
    ),
  );
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
