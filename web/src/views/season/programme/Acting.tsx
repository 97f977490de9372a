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

/** What asks for something now or soon, the gravest first. */
export function Acting({ turns, picked, onPick, panel }: Props) {
  return (
    <List>
      {turns.map((turn) => (
        <li key={keyOf(turn)}>
          <Row type="button" aria-expanded={picked === keyOf(turn)} onClick={() => onPick(turn)}>
            <State $tone={tones[turn.stand]}>
              <span aria-hidden>{marks[turn.stand]} </span>
              {turn.stand_text}
              <small>{turn.day}</small>
            </State>
            <span>
              {turn.name} on {turn.area}
              <small>{turn.mix}</small>
            </span>
            <span>{turn.refused[0]?.sentence ?? turn.warns[0]?.sentence ?? <small>{turn.why}</small>}</span>
          </Row>
          {picked === keyOf(turn) && panel}
        </li>
      ))}
    </List>
  );
}
