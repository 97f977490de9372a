import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { connection } from "../app/connection";
import { api, NoConnection, read, refused, send, token, type Schemas } from "./client";
import { useChange, usePath } from "./hooks";

export type PlanAsk = Schemas["PlanAskIn"];
export type MadePlan = Schemas["MadePlanOut"];
export type PlannedOuting = Schemas["PlannedOutingOut"];
export type ExamRow = Schemas["ExamRowOut"];
type Event = Schemas["PlanEventOut"];

export function usePlanOptions() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "plans", "options"],
    queryFn: () => read(api.GET("/api/accounts/{account}/plans/options", { params: { path } })),
  });
}

/** The lines of an answer that comes bit by bit, each as it is there. */
async function* lines(account: string, body: PlanAsk, signal: AbortSignal): AsyncGenerator<Event> {
  const answer = await fetch(`/api/accounts/${account}/plans/make`, {
    method: "POST",
    credentials: "same-origin",
    headers: { "Content-Type": "application/json", "X-CSRFToken": token() },
    body: JSON.stringify(body),
    signal,
  });
  connection.found();
  if (!answer.ok || !answer.body) throw refused(answer.status, await answer.json().catch(() => null));
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const parts = (rest + value).split("\n");
    rest = parts.pop() ?? "";
    for (const part of parts) yield JSON.parse(part) as Event;
  }
}

interface Making {
  running: boolean;
  progress: Schemas["PlanProgressOut"] | null;
  plan: MadePlan | null;
  /** What was asked for the plan that is shown. */
  asked: PlanAsk | null;
  exam: ExamRow[] | null;
  error: Error | null;
}

const NOTHING: Making = { running: false, progress: null, plan: null, asked: null, exam: null, error: null };

/** The making of a plan: how far it is, what came of it, and a way to end it. It ends with the view. */
export function useMakePlan() {
  const path = usePath();
  const [state, set] = useState<Making>(NOTHING);
  const under = useRef<AbortController>(null);
  useEffect(() => () => under.current?.abort(), []);
  const start = async (asked: PlanAsk) => {
    under.current?.abort();
    const mine = new AbortController();
    under.current = mine;
    set((now) => ({ ...now, running: true, progress: null, error: null }));
    try {
      for await (const event of lines(path.account, asked, mine.signal)) {
        if (event.error) throw refused(422, event.error);
        if (event.progress) set((now) => ({ ...now, progress: event.progress! }));
        if (event.plan) set((now) => ({ ...now, plan: event.plan!, asked, exam: null }));
        if (event.exam) set((now) => ({ ...now, exam: event.exam! }));
      }
      set((now) => ({ ...now, running: false, progress: null }));
    } catch (error) {
      if (mine.signal.aborted) {
        if (under.current === mine) set((now) => ({ ...now, running: false, progress: null }));
        return;
      }
      if (error instanceof TypeError) connection.lost();
      const told = error instanceof TypeError ? new NoConnection(false) : (error as Error);
      set((now) => ({ ...now, running: false, progress: null, error: told }));
    }
  };
  return {
    ...state,
    start: (asked: PlanAsk) => void start(asked),
    cancel: () => under.current?.abort(),
    clear: () => set(NOTHING),
  };
}

/** Keep a plan as steps of the programme. */
export function useTakePlan() {
  return useChange((path, body: Schemas["PlanTakeIn"]) =>
    read(send.POST("/api/accounts/{account}/plans/take", { params: { path }, body })),
  );
}
