import { useQuery, useQueryClient } from "@tanstack/react-query";
import { connection } from "../app/connection";
import { api, NoConnection, read, refused, send, token, type Schemas } from "./client";
import { useChange, usePath } from "./hooks";

export type Photo = Schemas["PhotoOut"];
export type Look = Schemas["LookOut"];

/** The address of a photograph, whole or small. */
export const pictureOf = (account: string, id: number, small = false) =>
  `/api/accounts/${account}/photos/${id}/picture${small ? "?small=true" : ""}`;

export const maskOf = (account: string, id: number) => `/api/accounts/${account}/photos/${id}/mask`;

export function useLooks() {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "looks"],
    queryFn: () => read(api.GET("/api/accounts/{account}/scouting/kinds", { params: { path } })),
    staleTime: Infinity,
  });
}

export function useEyes(area_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "eyes", area_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/areas/{area_id}/eyes", { params: { path: { ...path, area_id } } }),
      ),
    enabled: Number.isFinite(area_id),
  });
}

export function useAddScouting() {
  return useChange((path, body: Schemas["ScoutIn"]) =>
    read(send.POST("/api/accounts/{account}/scouting", { params: { path }, body })),
  );
}

export function useStrikeScouting() {
  return useChange((path, { id, why }: { id: number; why: string }) =>
    read(
      api.POST("/api/accounts/{account}/scouting/{report_id}/strike", {
        params: { path: { ...path, report_id: id } },
        body: { why },
      }),
    ),
  );
}

export function useAddSpot(area_id: number) {
  return useChange((path, body: Schemas["SpotIn"]) =>
    read(
      send.POST("/api/accounts/{account}/areas/{area_id}/spots", {
        params: { path: { ...path, area_id } },
        body,
      }),
    ),
  );
}

export function useRemoveSpot(area_id: number) {
  return useChange((path, spot_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/areas/{area_id}/spots/{spot_id}", {
        params: { path: { ...path, area_id, spot_id } },
      }),
    ),
  );
}

export function useChangePhoto() {
  return useChange((path, { id, body }: { id: number; body: Schemas["PhotoIn"] }) =>
    read(
      send.PUT("/api/accounts/{account}/photos/{photo_id}", {
        params: { path: { ...path, photo_id: id } },
        body,
      }),
    ),
  );
}

export function useRemovePhoto() {
  return useChange((path, photo_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/photos/{photo_id}", { params: { path: { ...path, photo_id } } }),
    ),
  );
}

/** Two photographs beside each other, and what makes them hard to compare. */
export function usePair(a: number, b: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "pair", a, b],
    queryFn: () =>
      read(api.GET("/api/accounts/{account}/photos/pair", { params: { path, query: { a, b } } })),
    enabled: a > 0 && b > 0,
  });
}

/** What a photograph says of its colour; asked for only when somebody wants it. */
export function useColour(photo_id: number, wanted: boolean) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "colour", photo_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/photos/{photo_id}/colour", {
          params: { path: { ...path, photo_id } },
        }),
      ),
    enabled: wanted,
    staleTime: Infinity,
  });
}

export type Noted = Partial<Record<keyof Schemas["PhotoIn"], string | number | null | undefined>>;

/** Send a photograph, and say how far it has come (0 to 1). `fetch` cannot tell that, so this asks as browsers did before it. */
export function usePutPhoto(area_id: number) {
  const path = usePath();
  const client = useQueryClient();
  return async (file: File, noted: Noted, onProgress: (share: number) => void): Promise<Photo> => {
    const form = new FormData();
    form.append("file", file);
    for (const [name, value] of Object.entries(noted)) {
      if (value !== undefined && value !== null && value !== "") form.append(name, String(value));
    }
    const made = await put(`/api/accounts/${path.account}/areas/${area_id}/photos`, form, onProgress);
    await client.invalidateQueries({ queryKey: [path.account] });
    return made;
  };
}

function put(url: string, form: FormData, onProgress: (share: number) => void): Promise<Photo> {
  return new Promise((resolve, reject) => {
    const asked = new XMLHttpRequest();
    asked.open("POST", url);
    asked.setRequestHeader("X-CSRFToken", token());
    asked.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    asked.onerror = () => {
      connection.lost();
      reject(new NoConnection(true));
    };
    asked.onload = () => {
      connection.found();
      const said = parsed(asked.responseText);
      if (asked.status < 300 && said) resolve(said as Photo);
      else reject(refused(asked.status, said));
    };
    asked.send(form);
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** What to expect after an application, and what was seen then. */
export function useAfter(application_id: number) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "after", application_id],
    queryFn: () =>
      read(
        api.GET("/api/accounts/{account}/scouting/after/{application_id}", {
          params: { path: { ...path, application_id } },
        }),
      ),
  });
}

export function useAnswerFollowUp() {
  return useChange((path, body: Schemas["FollowUpIn"]) =>
    read(send.POST("/api/accounts/{account}/scouting/followups", { params: { path }, body })),
  );
}

export function useStrikeFollowUp() {
  return useChange((path, { id, why }: { id: number; why: string }) =>
    read(
      api.POST("/api/accounts/{account}/scouting/followups/{follow_id}/strike", {
        params: { path: { ...path, follow_id: id } },
        body: { why },
      }),
    ),
  );
}
