import type { Middleware } from "openapi-fetch";
import type { components } from "./schema";

type ErrorOut = components["schemas"]["ErrorOut"];
export type Change = components["schemas"]["Change"];

/** A change that was made from an old version, and how it goes on: with what is taken of theirs, or not at all. */
export interface Quarrel {
  message: string;
  changes: Change[];
  settle: (taken: Record<string, unknown> | null) => void;
}

let asked: Quarrel | null = null;
const listeners = new Set<() => void>();

function ask(next: Quarrel | null) {
  asked = next;
  listeners.forEach((tell) => tell());
}

export const quarrels = {
  subscribe: (tell: () => void) => {
    listeners.add(tell);
    return () => void listeners.delete(tell);
  },
  now: () => asked,
};

const bodies = new WeakMap<Request, string>();

/** Where somebody else changed the same thing meanwhile, asks which of both to take, field by field, and sends that. */
export const mergeBoth: Middleware = {
  async onRequest({ request }) {
    if (request.method === "PUT") bodies.set(request, await request.clone().text());
    return request;
  },
  async onResponse({ request, response }) {
    let sent = bodies.get(request);
    let answer = response;
    while (sent !== undefined && answer.status === 409) {
      const told = (await answer.clone().json()) as ErrorOut;
      if (told.code !== "changed") break;
      const taken = await new Promise<Record<string, unknown> | null>((settle) =>
        ask({ message: told.message, changes: told.changes ?? [], settle }),
      );
      ask(null);
      if (!taken) break;
      sent = JSON.stringify({ ...(JSON.parse(sent) as object), ...taken, version: told.version });
      answer = await fetch(request.url, {
        method: "PUT",
        headers: request.headers,
        credentials: "same-origin",
        body: sent,
      });
    }
    return answer === response ? undefined : answer;
  },
};
