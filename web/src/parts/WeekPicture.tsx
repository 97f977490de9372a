import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

type Week = Schemas["WeekOut"];
type Site = Week["sites"][number];
type Due = Site["rows"][number];

const Table = styled.div`
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  column-gap: 16px;
  font-size: ${t.s13};
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Name = styled.div`
  padding: 3px 0;
  min-width: 0;
  overflow-wrap: anywhere;
  span {
    color: ${t.soft};
  }
  ${t.phone} {
    padding: 8px 0 2px;
  }
`;
/** A lane is as high as its name: what lies behind fills it, what is told stands in its middle. */
const Row = styled.div`
  position: relative;
  display: grid;
  align-items: center;
  > svg {
    position: relative;
    display: block;
    width: 100%;
    height: 26px;
    overflow: visible;
  }
  > svg[aria-hidden] {
    position: absolute;
    inset: 0;
    height: 100%;
  }
`;
const Days = styled.div`
  position: relative;
  height: 20px;
  color: ${t.soft};
  span {
    position: absolute;
    white-space: nowrap;
    padding-left: 4px;
  }
`;
const Head = styled.h3`
  grid-column: 1 / -1;
  padding: 10px 0 2px;
`;

const marks: Record<string, string> = { late: "■", due: "◆", coming: "▷" };
const tones: Record<string, string> = { late: t.stop, due: t.stop, coming: t.caution };
const wide = 1000;

function Ground({ week, site }: { week: Week; site: Site }) {
  return (
    <>
      {site.dark.map((d) => (
        <rect
          key={d.begin}
          x={d.begin * wide}
          y={0}
          width={(d.end - d.begin) * wide}
          height={26}
          fill={t.hair}
          opacity={0.35}
        />
      ))}
      {week.days.map((d) => (
        <line
          key={d.on}
          x1={d.begin * wide}
          x2={d.begin * wide}
          y1={0}
          y2={26}
          stroke={t.hair}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <line
        x1={week.now * wide}
        x2={week.now * wide}
        y1={0}
        y2={26}
        stroke={t.accent}
        strokeWidth={2}
        vectorEffect="non-scaling-stroke"
      />
    </>
  );
}

function LaneOf({ label, week, site, children }: { label: string } & Frame) {
  return (
    <Row>
      <svg viewBox={`0 0 ${wide} 26`} preserveAspectRatio="none" aria-hidden>
        <Ground week={week} site={site} />
      </svg>
      <svg viewBox={`0 0 ${wide} 26`} preserveAspectRatio="none" role="img" aria-label={label}>
        {children}
      </svg>
    </Row>
  );
}
interface Frame {
  week: Week;
  site: Site;
  children?: React.ReactNode;
}

function DueRow({ row, week, site }: { row: Due } & Frame) {
  const label = `${row.title}: ${row.said}`;
  return (
    <>
      <Name>
        <span style={{ color: tones[row.state] }} aria-hidden>
          {marks[row.state]}{" "}
        </span>
        {row.title} <span>{row.state}</span>
      </Name>
      <LaneOf label={label} week={week} site={site}>
        {row.fit.map((f) => (
          <rect
            key={f.begin}
            x={f.begin * wide}
            y={8}
            width={Math.max(1, (f.end - f.begin) * wide)}
            height={10}
            fill={t.accent}
            opacity={0.55}
          >
            <title>{f.text}</title>
          </rect>
        ))}
        {row.by !== null && (
          <line
            x1={row.by * wide}
            x2={row.by * wide}
            y1={3}
            y2={23}
            stroke={tones[row.state]}
            strokeWidth={3}
            vectorEffect="non-scaling-stroke"
          />
        )}
      </LaneOf>
    </>
  );
}

function SiteWeek({ week, site, several }: { week: Week; site: Site; several: boolean }) {
  return (
    <>
      {several && <Head>{site.name}</Head>}
      <Name aria-hidden />
      <Days aria-hidden>
        {week.days.map((d) => (
          <span key={d.on} style={{ left: `${d.begin * 100}%` }}>
            {d.text}
          </span>
        ))}
      </Days>
      {site.outings.length > 0 && (
        <>
          <Name>
            <strong>Outing</strong>
          </Name>
          <LaneOf label={`Outing: ${site.outings.map((o) => o.text).join("; ")}`} week={week} site={site}>
            {site.outings.map((o) => (
              <rect
                key={o.begin}
                x={o.begin * wide}
                y={4}
                width={Math.max(3, (o.end - o.begin) * wide)}
                height={18}
                fill={t.ink}
              >
                <title>{o.text}</title>
              </rect>
            ))}
          </LaneOf>
        </>
      )}
      {site.rows.map((row) => (
        <DueRow key={row.key} row={row} week={week} site={site} />
      ))}
      {site.locks.length > 0 && (
        <>
          <Name>
            Locked <span>{site.locks.length > 1 ? `${site.locks.length} locks` : ""}</span>
          </Name>
          <LaneOf label={`Locked: ${site.locks.map((l) => l.text).join("; ")}`} week={week} site={site}>
            {site.locks.map((l, i) => (
              <line
                key={l.text}
                x1={l.begin * wide}
                x2={l.end * wide}
                y1={6 + ((i * 5) % 16)}
                y2={6 + ((i * 5) % 16)}
                stroke={t.caution}
                strokeWidth={3}
                strokeDasharray="5 3"
                vectorEffect="non-scaling-stroke"
              >
                <title>{l.text}</title>
              </line>
            ))}
          </LaneOf>
        </>
      )}
      {site.more > 0 && (
        <>
          <Name>
            <span>{`${site.more} more coming`}</span>
          </Name>
          <div />
        </>
      )}
    </>
  );
}

const Key = styled.p`
  margin-top: 8px;
  font-size: ${t.s13};
  color: ${t.soft};
`;

/** The next seven days, site by site: the hours fit for what is due, by when it should be done, locks, and the outings. */
export function WeekPicture({ week }: { week: Week }) {
  const sites = week.sites.filter((s) => s.rows.length || s.locks.length || s.outings.length);
  if (!sites.length) return null;
  return (
    <>
      <Table>
        {sites.map((site) => (
          <SiteWeek key={site.id} week={week} site={site} several={week.sites.length > 1} />
        ))}
      </Table>
      <Key>
        Bars: hours fit for all of its areas. Upright mark: the end of the day by which it should be done.
      </Key>
    </>
  );
}
