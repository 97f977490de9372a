import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Button } from "./Button";
import { Mend } from "./Mend";

type Finding = Schemas["FindingOut"];

const tones = { refuse: t.stop, ask: t.accent, warn: t.caution, note: t.soft } as const;
const words = { refuse: "Not allowed", ask: "Did you mean", warn: "Take care", note: "Know" } as const;
const shapes = {
  refuse: "M8 2h8l6 6v8l-6 6H8l-6-6V8zM7.5 12h9",
  ask: "M3 12a9 9 0 1 0 18 0a9 9 0 1 0-18 0M9.5 9.5a2.6 2.6 0 1 1 3.6 2.4c-.8.4-1.1.9-1.1 1.8M12 16.5v.6",
  warn: "M12 3L22 20H2zM12 9v5M12 16.5v1",
  note: "M4 5h16M4 12h16M4 19h10",
};

const List = styled.ul`
  display: grid;
  gap: 8px;
`;
const Item = styled.li<{ $tone: string }>`
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 10px;
  align-items: start;
  svg {
    width: 20px;
    height: 20px;
    margin-top: 1px;
    fill: none;
    stroke: ${({ $tone }) => $tone};
    stroke-width: 2.1;
  }
  strong {
    color: ${({ $tone }) => $tone};
  }
`;
const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 6px;
`;

interface Props {
  of: Finding[];
  /** What happens when a reading is picked. */
  onPick?: (text: string) => void;
}

/** What the rules say of a plan: a word, a shape and a colour together, the gravest first. */
export function Findings({ of, onPick }: Props) {
  if (!of.length) return null;
  return (
    <List aria-label="What the rules say">
      {of.map((f) => (
        <Item key={`${f.key} ${f.sentence}`} $tone={tones[f.act]} data-finding={f.key} data-act={f.act}>
          <svg viewBox="0 0 24 24" aria-hidden>
            <path d={shapes[f.act]} />
          </svg>
          <div>
            <strong>{f.act === "ask" && !f.readings.length ? "A question" : words[f.act]}.</strong>{" "}
            {f.sentence}
            {f.mend && (
              <Ways>
                <Mend way={f.mend} />
              </Ways>
            )}
            {onPick && f.act === "ask" && (
              <Ways>
                {f.readings.map((r) => (
                  <Button key={r.text} onPress={() => onPick(r.text)}>{`Take ${r.meaning}`}</Button>
                ))}
              </Ways>
            )}
          </div>
        </Item>
      ))}
    </List>
  );
}
