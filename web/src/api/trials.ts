import { useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export type Trial = Schemas["TrialOut"];

export function useTrials() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "trials"],
    queryFn: () => read(api.GET("/api/accounts/{account}/trials", { params: { path } })),
  });
}

export function useTrial(trial_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "trials", trial_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/trials/{trial_id}", { params: { path: { ...path, trial_id } } })),
    enabled: Number.isFinite(trial_id),
  });
}

export function useTrialMaps(round_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "trials", "on-round", round_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/trials/on-round/{round_id}", {
          params: { path: { ...path, round_id } },
        }),
      ),
  });
}

/** How a trial would lie, while it is typed. */
export function useLayout(body: Schemas["LayoutIn"] | null) {
  return useAnswer("trial-layout", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/trials/layout", { params: { path }, body: asked, signal })),
  );
}

export function useBeginTrial() {
  return useChange((path, body: Schemas["TrialIn"]) =>
    read(send.POST("/api/accounts/{account}/trials", { params: { path }, body })),
  );
}

export function useScoreTrial(trial_id: number) {
  return useChange((path, body: Schemas["ScoresIn"]) =>
    read(
      send.POST("/api/accounts/{account}/trials/{trial_id}/scores", {
        params: { path: { ...path, trial_id } },
        body,
      }),
    ),
  );
}

export function useChangeTrial(trial_id: number) {
  return useChange((path, body: Schemas["TrialChangeIn"]) =>
    read(
      send.PUT("/api/accounts/{account}/trials/{trial_id}", {
        params: { path: { ...path, trial_id } },
        body,
      }),
    ),
  );
}

export function useEndTrial() {
  return useChange((path, trial_id: number) =>
    read(
      api.POST("/api/accounts/{account}/trials/{trial_id}/end", {
        params: { path: { ...path, trial_id } },
      }),
    ),
  );
}

export function useResumeTrial() {
  return useChange((path, trial_id: number) =>
    read(
      api.POST("/api/accounts/{account}/trials/{trial_id}/resume", {
        params: { path: { ...path, trial_id } },
      }),
    ),
  );
}

export function useRemoveTrial() {
  return useChange((path, trial_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/trials/{trial_id}", { params: { path: { ...path, trial_id } } }),
    ),
  );
}
