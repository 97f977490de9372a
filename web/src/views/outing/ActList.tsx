import type { ReactNode } from "react";
import styled from "styled-components";
import type { Act } from "../../api/outings";
import { t } from "../../app/theme";

const List = styled.ol`
  > li {
    display: grid;
    grid-template-columns: 108px minmax(0, 1fr) max-content;
    gap: 2px 16px;
    padding: 10px 0;
    border-bottom: 1px solid ${t.hair};
    align-items: baseline;
  }
  > li[data-soft] {
    color: ${t.soft};
    padding: 5px 0;
  }
  > li[data-done] {
    color: ${t.soft};
  }
  > li[data-now] {
    border-left: 4px solid ${t.accent};
    padding-left: 12px;
  }
  ${t.phone} {
    > li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const Time = styled.time`
  font-weight: 600;
  white-space: nowrap;
  span {
    display: block;
    font-weight: 400;
    font-size: ${t.s13};
  }
`;
const Title = styled.div`
  font-size: ${t.s18};
  li[data-soft] & {
    font-size: ${t.s15};
  }
`;
const Note = styled.div`
  font-size: ${t.s13};
  color: ${t.soft};
`;
const Stop = styled.div`
  display: grid;
  grid-column: 2 / -1;
  grid-template-columns: subgrid;
  gap: 0 16px;
  align-items: center;
  ${t.phone} {
    grid-column: 1 / -1;
    grid-template-columns: minmax(0, 1fr) max-content;
  }
  > form {
    grid-column: 1 / -1;
    padding: 8px 0 12px;
  }
  > button {
    justify-self: end;
    font-size: ${t.s13};
  }
`;

interface Props {
  acts: Act[];
  /** Only what goes down, without measuring and cleaning and what is known of each stop. */
  brief?: boolean;
  /** How many go out: with more than one, each act says whose it is. */
  people?: number;
  state?: (act: Act) => "now" | "done" | "";
  act?: (act: Act) => ReactNode;
  stop?: (act: Act, stop: Act["stops"][number]) => ReactNode;
}

const soft = ["ready", "clean", "drive"];

/** An outing as one line an act, each with its time. */
export function ActList({ acts, brief = false, people = 1, state, act, stop }: Props) {
  const shown = brief ? acts.filter((a) => !soft.includes(a.kind)) : acts;
  return (
    <List>
      {shown.map((a) => {
        const how = state?.(a) ?? "";
        return (
          <li
            key={`${a.begin} ${a.kind} ${a.job ?? ""} ${a.where}`}
            data-kind={a.kind}
            data-soft={soft.includes(a.kind) || undefined}
            data-now={how === "now" || undefined}
            data-done={how === "done" || undefined}
          >
            <Time dateTime={a.begin}>
              {a.time}
              {people > 1 && a.who !== null && <span>{` person ${a.who + 1}`}</span>}
            </Time>
            <div>
              <Title>
                {how === "done" && <span aria-hidden>✓ </span>}
                {a.title}
                {a.where && <>{a.kind === "drive" ? ` ${a.where}` : `: ${a.where}`}</>}
              </Title>
              {a.note && <Note>{a.note}</Note>}
            </div>
            <div>{act?.(a)}</div>
            {!brief &&
              a.stops.map((s) => (
                <Stop key={s.area_id}>
                  <Note>
                    {[
                      a.stops.length > 1 || s.what || s.last ? `${s.time} ${s.area}` : "",
                      s.what,
                      new Set(a.stops.map((x) => x.rate)).size > 1 ? s.rate : "",
                      s.last,
                      s.note,
                      s.state === "skipped" ? `skipped: ${s.why}` : "",
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </Note>
                  {stop?.(a, s)}
                </Stop>
              ))}
          </li>
        );
      })}
    </List>
  );
}
