import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, read, type Schemas } from "../api/client";

export type Session = Schemas["SessionOut"];
export type Account = Schemas["AccountOut"];

export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: () => read(api.GET("/api/session")),
    staleTime: Infinity,
  });
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SignInIn"]) => read(api.POST("/api/session", { body })),
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
}

export function useOpenAccount() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["OpenAccountIn"]) => read(api.POST("/api/accounts", { body })),
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
}

/** Come into the sample account, to look round in. */
export function useLookRound() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => read(api.POST("/api/session/sample")),
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
}

export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => read(api.DELETE("/api/session")),
    onSuccess: (session) => {
      queries.clear();
      queries.setQueryData(["session"], session);
    },
  });
}

/** The account in the address, as the signed-in person belongs to it. */
export function useAccount(): Account {
  const { account } = useParams();
  const { data } = useSession();
  const found = data?.accounts.find((c) => c.slug === account);
  if (!found) throw new Error("No account is open here.");
  return found;
}

const rank = { viewer: 1, applicator: 2, manager: 3 } as const;

/** Whether the signed-in person may do what `role` may. */
export function useMay(role: keyof typeof rank): boolean {
  return rank[useAccount().role] >= rank[role];
}
