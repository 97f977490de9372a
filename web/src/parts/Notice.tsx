import type { ReactNode } from "react";
import styled from "styled-components";
import { ApiError, NoConnection } from "../api/client";
import { t } from "../app/theme";

type Tone = "stop" | "caution" | "note";

const Box = styled.div<{ $tone: Tone }>`
  border-left: 4px solid
    ${({ $tone }) => ($tone === "stop" ? t.stop : $tone === "caution" ? t.caution : t.rule)};
  background: ${({ $tone }) => ($tone === "stop" ? t.stopWash : $tone === "caution" ? t.cautionWash : "none")};
  padding: 8px 12px;
  margin: 12px 0;
  strong {
    color: ${({ $tone }) => ($tone === "stop" ? t.stop : $tone === "caution" ? t.caution : t.ink)};
  }
`;

const words: Record<Tone, string> = { stop: "Stop", caution: "Take care", note: "Note" };

/** Something to heed: a word, a bar and a colour together. */
export function Notice({ tone, word, children }: { tone: Tone; word?: string; children: ReactNode }) {
  return (
    <Box $tone={tone} role={tone === "stop" ? "alert" : "note"}>
      <strong>{word ?? words[tone]}. </strong>
      {children}
    </Box>
  );
}

/** What a failed request says, unless the form shows it beside its fields. */
export function Fault({ error, besides = [] }: { error: Error | null | undefined; besides?: string[] }) {
  if (!error) return null;
  const rest = error instanceof ApiError ? error.fields.filter((f) => !placed(f.field, besides)) : [];
  if (error instanceof ApiError && error.fields.length && !rest.length) {
    return (
      <Notice tone="stop" word="Not saved">
        {error.fields.length === 1
          ? "One field needs mending."
          : `${error.fields.length} fields need mending.`}
      </Notice>
    );
  }
  return (
    <Notice tone="stop" word={error instanceof NoConnection ? "Not known" : "Not done"}>
      {rest.length ? rest.map((f) => <div key={f.field}>{`${f.problem} ${f.remedy}`}</div>) : error.message}
    </Notice>
  );
}

function placed(field: string, fields: string[]): boolean {
  return fields.some((f) => field === f || field.startsWith(`${f}.`));
}
