import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export function usePlan(body: Schemas["PlanIn"] | null) {
  return useAnswer("plan", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/passes/plan", { params: { path }, body: asked, signal })),
  );
}

export function useLanding(body: Schemas["LandIn"] | null) {
  return useAnswer("landing", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/passes/landing", { params: { path }, body: asked, signal })),
  );
}

export function useComparedPlans(body: Schemas["LandIn"] | null) {
  return useAnswer("plans", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/passes/compare", { params: { path }, body: asked, signal })),
  );
}

export function useExportPlan() {
  return useChange((path, body: Schemas["ExportIn"]) =>
    read(api.POST("/api/accounts/{account}/passes/geojson", { params: { path }, body })),
  );
}

export function usePlaceNear(area_id: number) {
  return useChange((path, body: Schemas["PlacesIn"]) =>
    read(
      send.PUT("/api/accounts/{account}/passes/areas/{area_id}/places", {
        params: { path: { ...path, area_id } },
        body,
      }),
    ),
  );
}

/** An area's water, and the minutes that a wanted depth takes by the audit in force. */
export function useWater(area_id: number, wanted: { value: string; unit: string }) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "water", area_id, wanted],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/areas/{area_id}/water", {
          params: { path: { ...path, area_id }, query: { wanted: wanted.value, unit: wanted.unit } },
        }),
      ),
    enabled: Number.isFinite(area_id),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export function useAudit(area_id: number, body: Schemas["AuditAskIn"] | null) {
  return useAnswer(`audit ${area_id}`, body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/water/audit", {
        params: { path: { ...path, area_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

export function useKeepAudit(area_id: number) {
  return useChange((path, { tasks, ...body }: Schemas["AuditIn"] & { tasks: boolean }) =>
    read(
      send.POST("/api/accounts/{account}/areas/{area_id}/water", {
        params: { path: { ...path, area_id }, query: { tasks } },
        body,
      }),
    ),
  );
}

export function useUseAudit(area_id: number) {
  return useChange((path, { id, act }: { id: number; act: "use" | "leave" }) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/water/{audit_id}/{act}", {
        params: { path: { ...path, area_id, audit_id: id, act } },
      }),
    ),
  );
}

export function useSetTask() {
  return useChange((path, { id, act }: { id: number; act: "done" | "open" }) =>
    read(
      api.POST("/api/accounts/{account}/tasks/{task_id}/{act}", {
        params: { path: { ...path, task_id: id, act } },
      }),
    ),
  );
}

export function useTasks() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "tasks"],
    queryFn: () => read(api.GET("/api/accounts/{account}/tasks", { params: { path } })),
  });
}
