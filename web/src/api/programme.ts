import { useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export type Programme = Schemas["ProgrammeOut"];
export type Turn = Schemas["TurnOut"];
export type Step = Schemas["MeantStepOut"];

export function useProgramme(year?: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "programme", year ?? "now"],
    queryFn: () => read(api.GET("/api/accounts/{account}/programme", { params: { path, query: { year } } })),
  });
}

/** A turn as a job to reckon, on all its areas. */
export function useTurnAsJob() {
  return useChange((path, { step_id, area_id, number }: Pick<Turn, "step_id" | "area_id" | "number">) =>
    read(
      api.GET("/api/accounts/{account}/programme/steps/{step_id}/job", {
        params: { path: { ...path, step_id }, query: { area_id, number } },
      }),
    ),
  );
}

/** What may be spent in a year. */
export function useSetMoney() {
  return useChange((path, body: Schemas["MoneyIn"]) =>
    read(api.POST("/api/accounts/{account}/programme/money", { params: { path }, body })),
  );
}

export function useStepOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "programme", "options"],
    queryFn: () => read(api.GET("/api/accounts/{account}/programme/options", { params: { path } })),
  });
}

/** What the gate would say of a turn on another day. */
export function useLookAtTurn(body: Schemas["TurnAskIn"] | null) {
  return useAnswer("turn", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/programme/turns/look", { params: { path }, body: asked, signal })),
  );
}

export function useSetTurn() {
  return useChange((path, body: Schemas["TurnIn"]) =>
    read(api.POST("/api/accounts/{account}/programme/turns", { params: { path }, body })),
  );
}

export function useSaveStep(step?: Step) {
  return useChange((path, body: Schemas["StepIn"]) =>
    step
      ? read(
          send.PUT("/api/accounts/{account}/programme/steps/{step_id}", {
            params: { path: { ...path, step_id: step.id } },
            body: { ...body, version: step.version },
          }),
        )
      : read(send.POST("/api/accounts/{account}/programme/steps", { params: { path }, body })),
  );
}

export function usePutStepAway() {
  return useChange((path, step_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/programme/steps/{step_id}", {
        params: { path: { ...path, step_id } },
      }),
    ),
  );
}

export function usePutStepBack() {
  return useChange((path, step_id: number) =>
    read(
      api.POST("/api/accounts/{account}/programme/steps/{step_id}/back", {
        params: { path: { ...path, step_id } },
      }),
    ),
  );
}

export function useAddEvent() {
  return useChange((path, body: Schemas["StepEventIn"]) =>
    read(send.POST("/api/accounts/{account}/programme/events", { params: { path }, body })),
  );
}

export function useRemoveEvent() {
  return useChange((path, event_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/programme/events/{event_id}", {
        params: { path: { ...path, event_id } },
      }),
    ),
  );
}

export function useAdoptOutline() {
  return useChange((path, body: Schemas["SeasonOutlineIn"]) =>
    read(send.POST("/api/accounts/{account}/programme/outlines", { params: { path }, body })),
  );
}

export function useAdoptSoil() {
  return useChange((path, body: Schemas["SoilStepsIn"]) =>
    read(send.POST("/api/accounts/{account}/programme/soil", { params: { path }, body })),
  );
}

export function useCopyYear() {
  return useChange((path, body: Schemas["CopyIn"]) =>
    read(send.POST("/api/accounts/{account}/programme/copies", { params: { path }, body })),
  );
}
