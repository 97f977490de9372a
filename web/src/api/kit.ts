import { useQuery } from "@tanstack/react-query";
import { api, read, send, type Schemas } from "./client";
import { useAnswer, useChange, usePath } from "./hooks";

export function useMachine(machine_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "machine", machine_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/machines/{machine_id}", {
          params: { path: { ...path, machine_id } },
        }),
      ),
    enabled: Number.isFinite(machine_id),
  });
}

/** What the account measures with, the retired ones too. */
export function useVessels() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "vessels"],
    queryFn: () => read(api.GET("/api/accounts/{account}/vessels", { params: { path } })),
  });
}

export function useKitOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "kit-options"],
    queryFn: () => read(api.GET("/api/accounts/{account}/machines/options", { params: { path } })),
    staleTime: Infinity,
  });
}

/** What a bench comes to as its figures are typed. */
export function useBench(machine_id: number, figures: Schemas["BenchAskIn"]["figures"] | null) {
  return useAnswer(`bench ${machine_id}`, figures, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/bench", {
        params: { path: { ...path, machine_id } },
        body: { figures: asked },
        signal,
      }),
    ),
  );
}

export function useNozzle(body: Schemas["NozzleIn"] | null) {
  return useAnswer("nozzle", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/machines/nozzle", { params: { path }, body: asked, signal })),
  );
}

export function usePace(machine_id: number, body: Schemas["PaceIn"] | null) {
  return useAnswer(`pace ${machine_id}`, body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/pace", {
        params: { path: { ...path, machine_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

export function useSetting(machine_id: number, body: Schemas["SettingIn"] | null) {
  return useAnswer(`setting ${machine_id}`, body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/setting", {
        params: { path: { ...path, machine_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

export function useMidway(body: Schemas["MidwayIn"] | null) {
  return useAnswer("midway", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/machines/midway", { params: { path }, body: asked, signal })),
  );
}

export function useKeepCalibration(machine_id: number) {
  return useChange((path, body: Schemas["CalibrationIn"]) =>
    read(
      send.POST("/api/accounts/{account}/machines/{machine_id}/calibrations", {
        params: { path: { ...path, machine_id } },
        body,
      }),
    ),
  );
}

export function useUseCalibration(machine_id: number) {
  return useChange((path, { id, act }: { id: number; act: "use" | "leave" }) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/calibrations/{calibration_id}/{act}", {
        params: { path: { ...path, machine_id, calibration_id: id, act } },
      }),
    ),
  );
}

export function useClean(machine_id: number) {
  return useChange((path, body: Schemas["CleaningIn"]) =>
    read(
      send.POST("/api/accounts/{account}/machines/{machine_id}/cleanings", {
        params: { path: { ...path, machine_id } },
        body,
      }),
    ),
  );
}

export function useTakeCleaningBack(machine_id: number) {
  return useChange((path, cleaning_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/machines/{machine_id}/cleanings/{cleaning_id}", {
        params: { path: { ...path, machine_id, cleaning_id } },
      }),
    ),
  );
}
