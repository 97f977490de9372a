import type { ReactNode } from "react";
import styled from "styled-components";
import type { Turn } from "../../../api/programme";
import { t } from "../../../app/theme";
import { keyOf, marks, tones } from "./stands";

const List = styled.ol`
  > li {
    border-bottom: 1px solid ${t.hair};
  }
`;
const Row = styled.button`
  display: grid;
  grid-template-columns: 96px minmax(0, 5fr) minmax(0, 4fr);
  gap: 2px 18px;
  width: 100%;
  padding: 10px 0;
  border: 0;
  background: transparent;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
  &:hover,
  &[aria-expanded="true"] {
    background: ${t.wash};
  }
  small {
    display: block;
    font-size: ${t.s13};
    color: ${t.soft};
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
    min-height: 44px;
  }
`;
const Several = styled(Row).attrs({ as: "div" })`
  cursor: default;
  &:hover {
    background: transparent;
  }
`;
const Areas = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
`;
const Area = styled.button`
  padding: 2px 0;
  border: 0;
  background: transparent;
  color: ${t.accent};
  font: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  &[aria-expanded="true"] {
    font-weight: 600;
  }
  ${t.phone} {
    min-height: 44px;
  }
`;
const State = styled.span<{ $tone: string }>`
  color: ${({ $tone }) => $tone};
  font-weight: 600;
`;

interface Props {
  turns: Turn[];
  picked: string | null;
  onPick: (turn: Turn) => void;
  /** What is shown below the picked one. */
  panel: ReactNode;
}

const remark = (turn: Turn) => turn.refused[0]?.sentence ?? turn.warns[0]?.sentence;

/** Turns that are one act: one step on one day, of which the same is to be said on every area. */
function together(turns: Turn[]): Turn[][] {
  const found = new Map<string, Turn[]>();
  for (const turn of turns) {
    const key = JSON.stringify([turn.step_id, turn.stand, turn.day, remark(turn) ?? turn.why]);
    found.set(key, [...(found.get(key) ?? []), turn]);
  }
  return [...found.values()];
}

/** What asks for something now or soon, the gravest first; a step on several areas is one act. */
export function Acting({ turns, picked, onPick, panel }: Props) {
  return (
    <List>
      {together(turns).map((mine) => {
        const turn = mine[0]!;
        const state = (
          <State $tone={tones[turn.stand]}>
            <span aria-hidden>{marks[turn.stand]} </span>
            {turn.stand_text}
            <small>{turn.day}</small>
          </State>
        );
        const said = <span>{remark(turn) ?? <small>{turn.why}</small>}</span>;
        return (
          <li key={keyOf(turn)}>
            {mine.length === 1 ? (
              <Row type="button" aria-expanded={picked === keyOf(turn)} onClick={() => onPick(turn)}>
                {state}
                <span>
                  {turn.name} on {turn.area}
                  <small>{turn.mix}</small>
                </span>
                {said}
              </Row>
            ) : (
              <Several>
                {state}
                <span>
                  {turn.name} on {mine.length} areas
                  <small>{turn.mix}</small>
                  <Areas>
                    {mine.map((x) => (
                      <Area
                        key={keyOf(x)}
                        type="button"
                        aria-expanded={picked === keyOf(x)}
                        onClick={() => onPick(x)}
                      >
                        {x.area}
                      </Area>
                    ))}
                  </Areas>
                </span>
                {said}
              </Several>
            )}
            {mine.some((x) => keyOf(x) === picked) && panel}
          </li>
        );
      })}
    </List>
  );
}
