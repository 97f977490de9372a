import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Line = styled.div<{ $tone: string }>`
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 10px;
  align-items: start;
  svg {
    width: 22px;
    height: 22px;
    fill: none;
    stroke: ${({ $tone }) => $tone};
    stroke-width: 2.2;
  }
  strong {
    color: ${({ $tone }) => $tone};
  }
`;

const shapes = {
  within: "M3 12a9 9 0 1 0 18 0a9 9 0 1 0-18 0M8 12.5l3 3l5.5-6.5",
  below: "M12 3L22 20H2zM12 9v5M12 16.5v1",
  above: "M8 2h8l6 6v8l-6 6H8l-6-6V8zM7.5 12h9",
};

/** Where a rate stands against its label: a word, a shape and a colour together, with the rule quoted. */
export function Verdict({ judgement }: { judgement: Schemas["JudgementOut"] }) {
  const { stand, refused } = judgement;
  const tone = stand === "within" ? t.accent : stand === "below" || !refused ? t.caution : t.stop;
  return (
    <Line $tone={tone} role="status" data-stand={stand}>
      <svg viewBox="0 0 24 24" aria-hidden>
        <path d={shapes[stand]} />
      </svg>
      <p>
        <strong>{judgement.word}.</strong> {judgement.sentence}
      </p>
    </Line>
  );
}
