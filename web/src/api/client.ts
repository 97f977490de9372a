import createClient, { type Middleware } from "openapi-fetch";
import { connection } from "../app/connection";
import { keyFor, answered } from "./keys";
import { mergeBoth } from "./revised";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type FieldFault = Schemas["FieldOut"];

/** Anything the server says in place of the answer, with the fields it can be put beside. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly fields: FieldFault[] = [],
  ) {
    super(message);
  }
}

/** No answer came. Of what only asks nothing is lost; of what was `sent` to be kept it is not known whether it was: a draft holds it. */
export class NoConnection extends Error {
  constructor(readonly sent: boolean) {
    super(
      sent
        ? "No answer came, so it may be saved or not. What you typed is kept on this device: send it again when the signal is back, and it counts once."
        : "No connection. Try again when the signal is back.",
    );
  }
}

export const token = () => /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";

const carried: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", token());
    return request;
  },
  onResponse() {
    connection.found();
  },
  onError({ error, request }) {
    if (error instanceof DOMException && error.name === "AbortError") return;
    connection.lost();
    const keeps = request.headers.has("Idempotency-Key") || ["PUT", "DELETE"].includes(request.method);
    return new NoConnection(keeps);
  },
};

/** What is sent under a key: the same again until an answer has come, so that it counts once. */
const once: Middleware = {
  async onRequest({ request }) {
    if (request.method === "POST") request.headers.set("Idempotency-Key", await keyFor(request));
    return request;
  },
  onResponse({ request }) {
    answered(request.headers.get("Idempotency-Key"));
  },
};

export const api = createClient<paths>({ credentials: "same-origin" });
api.use(carried);

/** For what changes something: creating counts once, and a change from an old version is merged by whoever made it. */
export const send = createClient<paths>({ credentials: "same-origin" });
send.use(carried, once, mergeBoth);

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** What a refused request is told as, from what the server answered. */
export function refused(status: number, error: unknown): ApiError {
  const told = (error ?? {}) as Partial<Schemas["ErrorOut"]>;
  return new ApiError(
    status,
    told.code ?? "error",
    told.message ?? `The server answered ${status}. Nothing was half-saved; try again.`,
    told.fields ?? [],
  );
}

/** The data of an answer, or an ApiError thrown. */
export async function read<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  throw refused(response.status, error);
}
