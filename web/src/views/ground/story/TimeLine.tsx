import styled from "styled-components";
import type { Schemas } from "../../../api/client";
import type { Event } from "../../../api/story";
import { t } from "../../../app/theme";
import { dayOf, daysTo } from "../../../parts/days";

type Line = Schemas["BehindOut"];
const DAYS = 91;
const lanes = [
  { key: "down", text: "Put down" },
  { key: "work", text: "Done" },
  { key: "seen", text: "Seen" },
] as const;

const Box = styled.div`
  display: grid;
  grid-template-columns: 68px 1fr;
  font-size: ${t.s13};
  color: ${t.soft};
  @media print {
    display: none;
  }
`;
const Name = styled.span`
  line-height: 28px;
`;
const Lane = styled.div`
  position: relative;
  height: 28px;
  border-bottom: 1px solid ${t.hair};
`;
const Mark = styled.i<{ $lane: string; $faint: boolean; $marked: boolean }>`
  position: absolute;
  top: 9px;
  width: ${({ $lane }) => ($lane === "work" ? 2 : 10)}px;
  height: ${({ $faint }) => ($faint ? 6 : 10)}px;
  margin-left: ${({ $lane }) => ($lane === "work" ? -1 : -5)}px;
  border-radius: ${({ $lane }) => ($lane === "work" ? 0 : "50%")};
  border: ${({ $lane }) => ($lane === "work" ? 0 : "1.5px")} solid
    ${({ $marked }) => ($marked ? t.stop : t.accent)};
  background: ${({ $lane, $marked, $faint }) =>
    $lane === "seen" ? t.sheet : $marked ? t.stop : $faint ? t.rule : t.accent};
`;
const Band = styled.i<{ $over: boolean; $kind: "risk" | "lock" }>`
  position: absolute;
  top: ${({ $over, $kind }) => ($kind === "risk" && !$over ? 13 : 8)}px;
  bottom: ${({ $over, $kind }) => ($kind === "risk" && !$over ? 13 : 8)}px;
  min-width: 2px;
  background: ${({ $over, $kind }) => ($kind === "risk" && $over ? t.stop : t.caution)};
  ${({ $kind }) =>
    $kind === "lock" &&
    `background: repeating-linear-gradient(135deg, ${t.rule} 0 1.5px, transparent 1.5px 5px); border: 1px solid ${t.rule};`}
`;
const Bar = styled.i`
  position: absolute;
  bottom: 0;
  width: 3px;
  margin-left: -1.5px;
  background: ${t.liquid};
  border: 1px solid ${t.ink};
  border-width: 1px 0 0;
`;
const Months = styled.div`
  grid-column: 2;
  position: relative;
  height: 22px;
  span {
    position: absolute;
    padding-left: 4px;
    border-left: 1px solid ${t.rule};
    line-height: 20px;
    white-space: nowrap;
  }
`;

/** The first days of the months inside of a span, and how far in each lies [%]. */
function months(today: string) {
  const end = new Date(`${today}T12:00Z`);
  return [0, 1, 2, 3]
    .map((back) => new Date(Date.UTC(end.getUTCFullYear(), end.getUTCMonth() - back, 1, 12)))
    .map((first) => ({ first, at: DAYS - daysTo(first.toISOString().slice(0, 10), today) }))
    .filter(({ at }) => at >= 0)
    .map(({ first, at }) => ({
      name: first.toLocaleDateString("en-GB", { month: "short", timeZone: "UTC" }),
      at: (at / DAYS) * 100,
    }));
}

const place = (on: string, today: string) => 100 - (daysTo(on, today) / DAYS) * 100;

function Bands({ of, kind, today }: { of: Schemas["SpanOut"][]; kind: "risk" | "lock"; today: string }) {
  return (
    <Lane>
      {of.map((s) => {
        const left = Math.max(0, place(s.begin, today));
        return (
          <Band
            key={`${s.begin}${s.text}`}
            $kind={kind}
            $over={s.over}
            title={s.text}
            style={{ left: `${left}%`, right: `${Math.max(0, 100 - place(s.end, today) - 100 / DAYS)}%` }}
          />
        );
      })}
    </Lane>
  );
}

interface Props {
  events: Event[];
  today: string;
  line?: Line;
}

/** The last three months of a ground on one line of time: rain, risk, what went down, what else was done, what was seen, locks. */
export function TimeLine({ events, today, line }: Props) {
  const shown = events.filter((e) => daysTo(e.on, today) <= DAYS && !e.struck);
  const said = lanes.map(({ key, text }) => `${text}: ${shown.filter((e) => e.lane === key).length}`);
  if (line?.rain.length) said.unshift(`Rain on ${line.rain.length} days`);
  if (line?.risk.length) said.push(`At risk: ${line.risk.filter((s) => s.over).length} times`);
  if (line?.locks.length) said.push(`Locked: ${line.locks.length} times`);
  return (
    <Box role="img" aria-label={`The last 13 weeks. ${said.join(", ")}.`}>
      {line && line.rain.length > 0 && (
        <>
          <Name>Rain</Name>
          <Lane>
            {line.rain.map((r) => (
              <Bar
                key={r.on}
                title={r.text}
                style={{ left: `${place(r.on, today)}%`, height: `${Math.max(2, 26 * r.share)}px` }}
              />
            ))}
          </Lane>
        </>
      )}
      {line && line.risk.length > 0 && (
        <>
          <Name>At risk</Name>
          <Bands of={line.risk} kind="risk" today={today} />
        </>
      )}
      {lanes.map(({ key, text }) => [
        <Name key={`${key} name`}>{text}</Name>,
        <Lane key={key}>
          {shown
            .filter((e) => e.lane === key)
            .map((e) => (
              <Mark
                key={e.key}
                $lane={key}
                $faint={e.regular}
                $marked={e.marked}
                title={`${dayOf(e.on)}: ${e.title}`}
                style={{ left: `${100 - (daysTo(e.on, today) / DAYS) * 100}%` }}
              />
            ))}
        </Lane>,
      ])}
      {line && line.locks.length > 0 && (
        <>
          <Name>Locked</Name>
          <Bands of={line.locks} kind="lock" today={today} />
        </>
      )}
      <Months>
        {months(today).map((m) => (
          <span key={m.name} style={m.at > 92 ? { right: 0, borderLeft: 0 } : { left: `${m.at}%` }}>
            {m.name}
          </span>
        ))}
      </Months>
    </Box>
  );
}
