import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useAccount } from "../app/session";
import { api, read, type Schemas } from "./client";

export function usePath() {
  return { account: useAccount().slug };
}

export function useToday() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "today"],
    queryFn: () => read(api.GET("/api/accounts/{account}/today", { params: { path } })),
  });
}

export function useAreas() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "areas"],
    queryFn: () => read(api.GET("/api/accounts/{account}/areas", { params: { path } })),
  });
}

export function useGroundOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "ground-options"],
    queryFn: () => read(api.GET("/api/accounts/{account}/areas/options", { params: { path } })),
    staleTime: Infinity,
  });
}

export function useArea(area_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "area", area_id],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/areas/{area_id}", { params: { path: { ...path, area_id } } })),
    enabled: Number.isFinite(area_id),
  });
}

/** Something asked of the server as it is typed; the last answer stands until the next is there. */
export function useAnswer<Asked, Answer>(
  name: string,
  asked: Asked | null,
  ask: (path: { account: string }, body: Asked, signal: AbortSignal) => Promise<Answer>,
) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, name, asked],
    queryFn: ({ signal }) => ask(path, asked!, signal),
    enabled: asked !== null,
    placeholderData: asked === null ? undefined : (keepPreviousData as never),
    retry: false,
    staleTime: 0,
  });
}

/** What a measurement comes to, beside the size in use of `area_id`. */
export function useMeasured(body: Schemas["MeasureIn"] | null, area_id?: number) {
  return useAnswer("measured", body && { body, area_id }, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/areas/measure", {
        params: { path, query: { area_id: asked.area_id } },
        body: asked.body,
        signal,
      }),
    ),
  );
}

export function usePhPlan(area_id: number, body: Schemas["PhPlanIn"] | null) {
  return useAnswer("ph", body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/ph", {
        params: { path: { ...path, area_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

/** How the rows of a label fit each of several areas, by the area's id. */
export function useRowFits(product_id: number | null, area_ids: number[], target: string) {
  return useAnswer(
    "rows",
    product_id === null || !area_ids.length ? null : { product_id, area_ids, target },
    async (path, asked, signal) => {
      const found = await Promise.all(
        asked.area_ids.map((area_id) =>
          read(
            api.POST("/api/accounts/{account}/reckon/rows", {
              params: { path },
              body: { product_id: asked.product_id, area_id, target: asked.target },
              signal,
            }),
          ),
        ),
      );
      return {
        product_id: asked.product_id,
        target: asked.target,
        fits: Object.fromEntries(asked.area_ids.map((id, i) => [id, found[i]!])),
      };
    },
  );
}

export function useBackwards(body: Schemas["BackIn"] | null) {
  return useAnswer("backwards", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/reckon/backwards", { params: { path }, body: asked, signal })),
  );
}

export function useCompared(body: Schemas["CompareIn"] | null) {
  return useAnswer("compare", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/reckon/compare", { params: { path }, body: asked, signal })),
  );
}

export function useMeasuring(body: Schemas["DoseMeasureIn"] | null) {
  return useAnswer("measuring", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/reckon/measure", { params: { path }, body: asked, signal })),
  );
}

export function useCup(body: Schemas["CupIn"] | null) {
  return useAnswer("cup", body, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/reckon/cup", { params: { path }, body: asked, signal })),
  );
}

export function useHouse() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "house"],
    queryFn: () => read(api.GET("/api/accounts/{account}/house", { params: { path } })),
  });
}

export function useProducts() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "products"],
    queryFn: () => read(api.GET("/api/accounts/{account}/products", { params: { path } })),
  });
}

export function useProductOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "product-options"],
    queryFn: () => read(api.GET("/api/accounts/{account}/products/options", { params: { path } })),
    staleTime: Infinity,
  });
}

/** The mixes that the account keeps by name. */
export function useMixes() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "mixes"],
    queryFn: () => read(api.GET("/api/accounts/{account}/mixes", { params: { path } })),
  });
}

export function useMachines() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "machines"],
    queryFn: () => read(api.GET("/api/accounts/{account}/machines", { params: { path } })),
  });
}

/** What a product's name says that it holds, where it looks like a grade. */
export function useGrade(name: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "grade", name],
    queryFn: ({ signal }) =>
      read(api.POST("/api/accounts/{account}/products/grade", { params: { path }, body: { name }, signal })),
    enabled: /\d-\d/.test(name),
    staleTime: Infinity,
  });
}

/** A label's text read by the server as it is pasted or typed, without the findings that are not taken. */
export function useLabelText(text: string, without: number[]) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "label", text, without],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/accounts/{account}/products/label", {
          params: { path },
          body: { text, without },
          signal,
        }),
      ),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
}

/** A label phrase read by the server as it is typed. */
export function usePhrase(phrase: string, formulation: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "phrase", phrase, formulation],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/accounts/{account}/products/phrase", {
          params: { path },
          body: { phrase, formulation },
          signal,
        }),
      ),
    enabled: phrase.trim() !== "",
    retry: false,
    staleTime: Infinity,
  });
}

/** A job reckoned by the server as its parts are chosen. */
export function useJob(job: Schemas["JobIn"] | null) {
  return useAnswer("job", job, (path, asked, signal) =>
    read(api.POST("/api/accounts/{account}/reckon/job", { params: { path }, body: asked, signal })),
  );
}

export function useLineExamples() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "line", "examples"],
    queryFn: () => read(api.GET("/api/accounts/{account}/reckon/line", { params: { path } })),
  });
}

export function useLine(line: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "line", line],
    queryFn: ({ signal }) =>
      read(api.POST("/api/accounts/{account}/reckon/line", { params: { path }, body: { line }, signal })),
    enabled: line.trim() !== "",
    placeholderData: line.trim() ? keepPreviousData : undefined,
    retry: false,
  });
}

export function useRounds() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "rounds"],
    queryFn: () => read(api.GET("/api/accounts/{account}/rounds", { params: { path } })),
  });
}

export function useRound(id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "round", id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/rounds/{round_id}", { params: { path: { ...path, round_id: id } } }),
      ),
  });
}

export function useActual(round_id: number, body: Schemas["FinishIn"] | null) {
  return useAnswer("actual", body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/actual", {
        params: { path: { ...path, round_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

/** What a measured amount makes of the rate, before it goes into the tank. */
export function usePoured(round_id: number, body: Schemas["PouredIn"] | null) {
  return useAnswer("poured", body, (path, asked, signal) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/poured/check", {
        params: { path: { ...path, round_id } },
        body: asked,
        signal,
      }),
    ),
  );
}

export function useBook(words: string, page: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "book", words, page],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/book", { params: { path, query: { words, page } } })),
    placeholderData: keepPreviousData,
  });
}

export function useApplication(id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "entry", id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/book/{application_id}", {
          params: { path: { ...path, application_id: id } },
        }),
      ),
  });
}

export function useMembers() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "members"],
    queryFn: () => read(api.GET("/api/accounts/{account}/members", { params: { path } })),
  });
}

export function useSites() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "sites"],
    queryFn: () => read(api.GET("/api/accounts/{account}/sites", { params: { path } })),
  });
}

/** A change to the account: afterwards everything of the account is read afresh. */
export function useChange<In, Out>(work: (path: { account: string }, given: In) => Promise<Out>) {
  const path = usePath();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: In) => work(path, given),
    // not awaited: whoever asked for the change goes on at once, and may leave the view
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: [path.account] });
      void queries.invalidateQueries({ queryKey: ["session"] }); // its sites are told there
    },
  });
}
