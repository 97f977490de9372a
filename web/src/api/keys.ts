const PREFIX = "key:";

/** What tells one request from another: its address and its body; of a form, its fields and files. */
async function printOf(request: Request): Promise<string> {
  const copy = request.clone();
  if (!(request.headers.get("Content-Type") ?? "").startsWith("multipart/"))
    return `${request.url} ${await copy.text()}`;
  const parts = [...(await copy.formData()).entries()].map(([name, value]) =>
    value instanceof File ? `${name}:${value.name}:${value.size}` : `${name}=${value}`,
  );
  return `${request.url} ${parts.join(" ")}`;
}

async function shortened(text: string): Promise<string> {
  // not everywhere: an address without https has no digests
  if (!crypto.subtle) return text.length < 400 ? text : `${text.slice(0, 400)}${text.length}`;
  const bytes = new Uint8Array(await crypto.subtle.digest("SHA-256", new TextEncoder().encode(text)));
  return [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
}

function fresh(): string {
  return crypto.randomUUID?.() ?? `${Date.now()}-${Math.random().toString(36).slice(2)}`;
}

/**
 * The key that a request is sent under. It is kept on this device until the server has answered, so that the same plan sent
 * again after a lost answer, or after a reload, is the same request.
 */
export async function keyFor(request: Request): Promise<string> {
  const name = PREFIX + (await shortened(await printOf(request)));
  const held = localStorage.getItem(name);
  if (held) return held;
  const key = fresh();
  localStorage.setItem(name, key);
  return key;
}

/** The server has answered what was sent under a key: the next of its kind is another request. */
export function answered(key: string | null): void {
  for (const name of Object.keys(localStorage))
    if (name.startsWith(PREFIX) && localStorage.getItem(name) === key) localStorage.removeItem(name);
}
