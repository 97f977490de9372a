import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

export type Verdict = Schemas["FitOut"]["verdict"];

const tones: Record<Verdict, string> = { go: t.accent, mind: t.caution, wait: t.caution, no: t.stop };
const words: Record<Verdict, string> = { go: "Go", mind: "Take care", wait: "Wait", no: "No" };
const shapes: Record<Verdict, string> = {
  go: "M3 12a9 9 0 1 0 18 0a9 9 0 1 0-18 0M8 12.5l3 3l5.5-6.5",
  mind: "M12 3L22 20H2zM12 9v5M12 16.5v1",
  wait: "M3 12a9 9 0 1 0 18 0a9 9 0 1 0-18 0M12 6.5V12l4 2.5",
  no: "M8 2h8l6 6v8l-6 6H8l-6-6V8zM7.5 12h9",
};

const Mark = styled.span<{ $tone: string }>`
  color: ${({ $tone }) => $tone};
  font-weight: 600;
  white-space: nowrap;
  svg {
    width: 19px;
    height: 19px;
    margin-right: 6px;
    vertical-align: -4px;
    fill: none;
    stroke: currentColor;
    stroke-width: 2.2;
  }
`;

/** Go, mind, wait or no: a word, a shape and a colour together; `bare` where the words beside it say it. */
export function FitMark({ verdict, bare }: { verdict: Verdict; bare?: boolean }) {
  return (
    <Mark $tone={tones[verdict]} data-verdict={verdict}>
      <svg viewBox="0 0 24 24" aria-hidden>
        <path d={shapes[verdict]} />
      </svg>
      {!bare && words[verdict]}
    </Mark>
  );
}
