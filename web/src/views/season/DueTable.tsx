import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { FitMark } from "../../parts/FitMark";

type Line = Schemas["DueLineOut"];

const List = styled.ol`
  > li {
    display: grid;
    grid-template-columns: 92px minmax(0, 5fr) minmax(0, 4fr);
    gap: 4px 20px;
    padding: 12px 0;
    border-bottom: 1px solid ${t.hair};
  }
  ${t.phone} {
    > li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const State = styled.span<{ $tone: string }>`
  color: ${({ $tone }) => $tone};
  font-weight: 600;
  small {
    display: block;
    font-size: ${t.s13};
    font-weight: 400;
    color: ${t.soft};
  }
  ${t.phone} {
    small {
      display: inline;
      margin-left: 8px;
    }
  }
`;
const Title = styled.span`
  font-size: ${t.s18};
`;
const Soft = styled.div`
  font-size: ${t.s13};
  color: ${t.soft};
`;
const Missed = styled.div`
  font-size: ${t.s13};
  color: ${t.stop};
`;

const tones: Record<Line["state"], string> = { late: t.stop, due: t.stop, coming: t.caution };
const marks: Record<Line["state"], string> = { late: "■", due: "◆", coming: "▷" };

/** What is due: how pressing, against what, by which product, and in which hours. */
export function DueTable({ lines }: { lines: Line[] }) {
  const account = useAccount();
  const base = `/a/${account.slug}`;
  return (
    <List>
      {lines.map((line) => (
        <li key={line.key} data-due={line.key}>
          <State $tone={tones[line.state]}>
            <span aria-hidden>{marks[line.state]} </span>
            {line.state_text}
            {line.by_text !== "today" && <small>{line.by_text}</small>}
          </State>
          <div>
            <Title>
              {line.kind === "disease" ? (
                <Link to={`${base}/season/${line.area_id}/${line.disease}`}>{line.title}</Link>
              ) : (
                <Link to={line.kind === "step" ? `${base}/season/programme` : `${base}/sky/clocks`}>
                  {line.title}
                </Link>
              )}
              {line.site && <small>, {line.site}</small>}
            </Title>
            <Soft>
              {line.why} {line.delay}
            </Soft>
            {line.zones.map((z) => (
              <Soft key={z}>{z}</Soft>
            ))}
          </div>
          <div>
            {line.round_id !== null ? (
              <Link to={`${base}/round/${line.round_id}`}>A round is under way</Link>
            ) : (
              <>
                {line.window ? (
                  <div>
                    <FitMark verdict={line.window.verdict} /> {line.window.text}
                  </div>
                ) : (
                  line.kind === "disease" &&
                  !line.product && <div>No product on the shelf may go down against it here.</div>
                )}
                {line.product && line.kind !== "regulator" && (
                  <Soft>
                    {[line.product, line.rate].filter(Boolean).join(", ")}
                    {line.curative && ", curative"}
                    {line.cost && ` · ${line.cost}`}
                  </Soft>
                )}
                {line.planned && !line.planned.missed && (
                  <Soft>
                    Planned by {line.planned.by}: {line.planned.text}
                  </Soft>
                )}
                {line.planned?.missed && (
                  <Missed>
                    Planned for {line.planned.text} and missed: {line.planned.cost}.
                  </Missed>
                )}
              </>
            )}
          </div>
        </li>
      ))}
    </List>
  );
}
