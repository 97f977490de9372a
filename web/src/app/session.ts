import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, read, type Schemas } from "../api/client";

export type Session = Schemas["SessionOut"];
export type Club = Schemas["ClubOut"];

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

export function useFoundClub() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["FoundIn"]) => read(api.POST("/api/clubs", { body })),
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

/** The club in the address, as the signed-in person belongs to it. */
export function useClub(): Club {
  const { club } = useParams();
  const { data } = useSession();
  const found = data?.clubs.find((c) => c.slug === club);
  if (!found) throw new Error("No club is open here.");
  return found;
}

const rank = { viewer: 1, applicator: 2, manager: 3 } as const;

/** Whether the signed-in person may do what `role` may. */
export function useMay(role: keyof typeof rank): boolean {
  return rank[useClub().role] >= rank[role];
}
