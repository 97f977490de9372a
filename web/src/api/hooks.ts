import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useClub } from "../app/session";
import { api, read, type Schemas } from "./client";

function usePath() {
  return { club: useClub().slug };
}

export function useToday() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "today"],
    queryFn: () => read(api.GET("/api/clubs/{club}/today", { params: { path } })),
  });
}

export function useAreas() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "areas"],
    queryFn: () => read(api.GET("/api/clubs/{club}/areas", { params: { path } })),
  });
}

export function useGrasses() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "grasses"],
    queryFn: () => read(api.GET("/api/clubs/{club}/areas/grasses", { params: { path } })),
    staleTime: Infinity,
  });
}

export function useProducts() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "products"],
    queryFn: () => read(api.GET("/api/clubs/{club}/products", { params: { path } })),
  });
}

export function useProductOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "product-options"],
    queryFn: () => read(api.GET("/api/clubs/{club}/products/options", { params: { path } })),
    staleTime: Infinity,
  });
}

export function useMachines() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "machines"],
    queryFn: () => read(api.GET("/api/clubs/{club}/machines", { params: { path } })),
  });
}

/** A label phrase read by the server as it is typed. */
export function usePhrase(phrase: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "phrase", phrase],
    queryFn: ({ signal }) =>
      read(api.POST("/api/clubs/{club}/products/phrase", { params: { path }, body: { phrase }, signal })),
    enabled: phrase.trim() !== "",
    retry: false,
    staleTime: Infinity,
  });
}

/** A job reckoned by the server as its parts are chosen; the last answer stands until the next is there. */
export function useJob(job: Schemas["JobIn"] | null) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "job", job],
    queryFn: ({ signal }) =>
      read(api.POST("/api/clubs/{club}/reckon/job", { params: { path }, body: job!, signal })),
    enabled: job !== null,
    placeholderData: job ? keepPreviousData : undefined,
    retry: false,
    staleTime: 0,
  });
}

export function useLine(line: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "line", line],
    queryFn: ({ signal }) =>
      read(api.POST("/api/clubs/{club}/reckon/line", { params: { path }, body: { line }, signal })),
    enabled: line.trim() !== "",
    placeholderData: line.trim() ? keepPreviousData : undefined,
    retry: false,
  });
}

export function useRounds() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "rounds"],
    queryFn: () => read(api.GET("/api/clubs/{club}/rounds", { params: { path } })),
  });
}

export function useRound(id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "round", id],
    queryFn: () =>
      read(api.GET("/api/clubs/{club}/rounds/{round_id}", { params: { path: { ...path, round_id: id } } })),
  });
}

export function useActual(id: number, body: Schemas["FinishIn"] | null) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "actual", id, body],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/clubs/{club}/rounds/{round_id}/actual", {
          params: { path: { ...path, round_id: id } },
          body: body!,
          signal,
        }),
      ),
    enabled: body !== null,
    placeholderData: body ? keepPreviousData : undefined,
    retry: false,
  });
}

export function useBook(words: string, page: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "book", words, page],
    queryFn: () => read(api.GET("/api/clubs/{club}/book", { params: { path, query: { words, page } } })),
    placeholderData: keepPreviousData,
  });
}

export function useEntry(id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "entry", id],
    queryFn: () =>
      read(api.GET("/api/clubs/{club}/book/{entry_id}", { params: { path: { ...path, entry_id: id } } })),
  });
}

export function useMembers() {
  const path = usePath();
  return useQuery({
    queryKey: [path.club, "members"],
    queryFn: () => read(api.GET("/api/clubs/{club}/members", { params: { path } })),
  });
}

/** A change to the club: afterwards everything of the club is read afresh. */
export function useChange<In, Out>(work: (path: { club: string }, given: In) => Promise<Out>) {
  const path = usePath();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: In) => work(path, given),
    // not awaited: whoever asked for the change goes on at once, and may leave the view
    onSuccess: () => void queries.invalidateQueries({ queryKey: [path.club] }),
  });
}
