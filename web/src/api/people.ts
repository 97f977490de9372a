import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Schemas } from "./client";
import { useChange } from "./hooks";

/** A change to oneself; what comes back is who is signed in. */
function useMine<In>(work: (given: In) => Promise<Schemas["SessionOut"]>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: work,
    onSuccess: (session) => {
      queries.setQueryData(["session"], session);
      void queries.invalidateQueries({ queryKey: ["open"] });
    },
  });
}

export const useChangeMe = () =>
  useMine((body: Schemas["MeIn"]) => read(api.PUT("/api/session/me", { body })));

export const useChangePassword = () =>
  useMine((body: Schemas["PasswordIn"]) => read(api.PUT("/api/session/password", { body })));

export const useReset = () =>
  useMine((body: Schemas["ResetIn"]) => read(api.POST("/api/session/reset", { body })));

export const useBringArchive = () =>
  useMine((file: File) =>
    read(
      api.POST("/api/accounts/archive", {
        body: { file: "" },
        bodySerializer: () => {
          const form = new FormData();
          form.append("file", file);
          return form;
        },
      }),
    ),
  );

export function useForgotten() {
  return useMutation({
    mutationFn: (body: Schemas["ForgottenIn"]) => read(api.POST("/api/session/forgotten", { body })),
  });
}

export function useOpenSessions() {
  return useQuery({ queryKey: ["open"], queryFn: () => read(api.GET("/api/session/open")) });
}

/** End one session, or with null all but this one. */
export function useEndSession() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (session_id: number | null) =>
      session_id === null
        ? read(api.DELETE("/api/session/open"))
        : read(api.DELETE("/api/session/open/{session_id}", { params: { path: { session_id } } })),
    onSuccess: (left) => queries.setQueryData(["open"], left),
  });
}

export function useResetLink() {
  return useChange((path, member_id: number) =>
    read(
      api.POST("/api/accounts/{account}/members/{member_id}/reset", {
        params: { path: { ...path, member_id } },
      }),
    ),
  );
}

export function useCloseAccount() {
  return useChange((path, body: Schemas["CloseIn"]) =>
    read(api.POST("/api/accounts/{account}/close", { params: { path }, body })),
  );
}
