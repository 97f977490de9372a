import { useEffect, useRef, type KeyboardEvent, type ReactNode } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Air, AirScale, Clock, Cover, Jobs, LEFT, mostRain, RIGHT, Risk, short, Wet } from "./stripLanes";

type Strip = Schemas["StripOut"];

const Frame = styled.div`
  overflow-x: auto;
  outline-offset: 3px;
`;
/** Names and days keep one scale: the names stay in sight while the days are moved under them. */
const Inner = styled.div`
  display: flex;
  min-width: 880px;
`;
const Sheet = styled.svg<{ $share: number }>`
  display: block;
  width: ${({ $share }) => $share}%;
  height: auto;
  text {
    font: 500 12px ${t.text};
    ${t.phone} {
      font-size: 14px;
    }
    fill: ${t.soft};
  }
  .name {
    fill: ${t.ink};
    font-weight: 600;
  }
  &[data-names] {
    position: sticky;
    left: 0;
    background: ${t.paper};
  }
  .axis {
    stroke: ${t.hair};
  }
  .foretold {
    fill: ${t.wash};
    opacity: 0.7;
  }
  .picked {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 1.5;
  }
  .today {
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  .span {
    fill: ${t.grain};
    stroke: ${t.rule};
    stroke-width: 0.5;
  }
  .rain {
    fill: ${t.accent};
  }
  .wet {
    fill: ${t.liquid};
  }
  .limit {
    stroke: ${t.stop};
    stroke-width: 1;
    stroke-dasharray: 5 3;
  }
  .none {
    fill: url(#no-value);
  }
  .cover {
    fill: ${t.accent};
  }
  .most {
    stroke: ${t.accent};
    stroke-width: 2;
    stroke-dasharray: 2 3;
  }
  .on-cover {
    fill: ${t.onAccent};
    font-weight: 600;
  }
  .seen {
    fill: ${t.stop};
    stroke: ${t.paper};
  }
  .clean {
    fill: ${t.paper};
    stroke: ${t.ink};
    stroke-width: 1.3;
  }
  .clock {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.6;
  }
  .day {
    fill: transparent;
    cursor: pointer;
  }
`;

const WIDTH = RIGHT + 6;
const NAMES = (LEFT / WIDTH) * 100;

interface Props {
  strip: Strip;
  /** The place of the day that is unfolded. */
  picked: number | null;
  onPick: (place: number) => void;
}

/**
 * One time axis for an area: weather, risk by disease against its threshold, covers, scout reports and regulators.
 * Today is a line, what is foretold stands on a wash. Pick a day with the pointer or the arrow keys.
 */
export function SeasonStrip({ strip, picked, onPick }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const days = strip.days;
  const first = days[0]?.on ?? "";
  const step = (RIGHT - LEFT) / Math.max(1, days.length);
  const x = (place: number) => LEFT + place * step;
  useEffect(() => {
    const box = frame.current; // on a phone today is brought into sight
    if (box) box.scrollLeft = (box.scrollWidth * (x(strip.today) - 340)) / RIGHT;
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [strip.area_id, days.length]);

  const key = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[e.key];
    const to = e.key === "Home" ? 0 : e.key === "End" ? days.length - 1 : undefined;
    if (by === undefined && to === undefined) return;
    e.preventDefault();
    onPick(Math.max(0, Math.min(days.length - 1, to ?? (picked ?? strip.today) + by!)));
  };

  const risks = strip.risks.filter((r) => shown(r, strip));
  const lanes: LaneOf[] = [
    {
      height: 62,
      name: "Air",
      under: strip.units.air!,
      side: (top) => <AirScale days={days} top={top} />,
      draw: (top) => <Air days={days} x={x} step={step} top={top} />,
    },
    {
      height: 52,
      name: "Rain, wet leaf",
      under: `most ${Number(mostRain(strip).toFixed(1))} ${strip.units.rain}, 24 h`,
      draw: (top) => <Wet days={days} x={x} step={step} top={top} most={mostRain(strip)} />,
    },
    ...risks.map((r) => ({
      height: 44,
      name: r.name,
      under: r.threshold,
      draw: (top: number) => <Risk risk={r} strip={strip} first={first} x={x} step={step} top={top} />,
    })),
    ...strip.covers.map((c) => ({
      height: 26,
      name: c.product,
      draw: (top: number) => <Cover cover={c} first={first} count={days.length} x={x} top={top} />,
    })),
    ...(strip.jobs.length
      ? [
          {
            height: 26,
            name: "Planned",
            draw: (top: number) => <Jobs strip={strip} first={first} x={x} step={step} top={top} />,
          },
        ]
      : []),
    ...strip.clocks
      .filter((c) => c.track.length > 0)
      .map((c) => ({
        height: 44,
        name: c.product,
        under: "share of its target",
        draw: (top: number) => (
          <Clock clock={c} first={first} count={days.length} x={x} step={step} top={top} />
        ),
      })),
  ];
  const tops: number[] = [];
  let height = 34;
  for (const lane of lanes) {
    tops.push(height);
    height += lane.height + 10;
  }
  const ahead = days.findIndex((d) => d.forecast > 0.5);
  const every = Math.ceil(days.length / 24);
  return (
    <Frame
      ref={frame}
      tabIndex={0}
      role="group"
      aria-label={`${strip.area}, day by day: arrow keys pick a day`}
      onKeyDown={key}
    >
      <Inner>
        <Sheet $share={NAMES} viewBox={`0 0 ${LEFT} ${height}`} data-names aria-hidden>
          {lanes.map((lane, i) => (
            <g key={i}>
              <text className="name" x={0} y={tops[i]! + 14}>
                {short(lane.name, 19)}
              </text>
              {lane.under && (
                <text x={0} y={tops[i]! + 29}>
                  {short(lane.under, 21)}
                </text>
              )}
              {lane.side?.(tops[i]!)}
            </g>
          ))}
        </Sheet>
        <Sheet $share={100 - NAMES} viewBox={`${LEFT} 0 ${WIDTH - LEFT} ${height}`} data-strip={strip.area}>
          <defs>
            <pattern
              id="no-value"
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <path d="M0 0V6" stroke={t.hair} strokeWidth="1.5" />
            </pattern>
          </defs>
          {ahead >= 0 && (
            <rect
              className="foretold"
              x={x(ahead)}
              y={22}
              width={x(days.length) - x(ahead)}
              height={height - 26}
            />
          )}
          {ahead >= 0 && (
            <text x={x(days.length) - 4} y={height - 8} textAnchor="end">
              forecast
            </text>
          )}
          {days.map((d, i) => (
            <g key={d.on}>
              {i % every === 0 && (
                <text x={x(i) + step / 2} y={20} textAnchor="middle">
                  {Number(d.on.slice(8))}
                </text>
              )}
              {(i === 0 || d.on.endsWith("-01")) && (
                <text className="name" x={x(i) + 2} y={9}>
                  {monthOf(d.on)}
                </text>
              )}
            </g>
          ))}
          {lanes.map((lane, i) => (
            <g key={i}>{lane.draw(tops[i]!)}</g>
          ))}
          <path className="today" d={`M${x(strip.today)} 22V${height - 4}`}>
            <title>Today begins here</title>
          </path>
          {picked !== null && days[picked] && (
            <rect className="picked" x={x(picked)} y={22} width={step} height={height - 26} />
          )}
          {days.map((d, i) => (
            <rect
              key={d.on}
              className="day"
              data-day={d.on}
              x={x(i)}
              y={0}
              width={step}
              height={height}
              onClick={() => onPick(i)}
            >
              <title>{`${d.label}: ${d.said}`}</title>
            </rect>
          ))}
        </Sheet>
      </Inner>
    </Frame>
  );
}

/** A disease has its lane where it stirs, or where a scout looked for it. */
function shown(risk: Schemas["StripRiskOut"], strip: Strip): boolean {
  return risk.shares.some((s) => s !== null && s >= 0.3) || strip.scouts.some((s) => s.what === risk.disease);
}

/** The diseases without a lane. */
export const quietOf = (strip: Strip) => strip.risks.filter((r) => !shown(r, strip));

const monthOf = (on: string) =>
  new Date(`${on}T12:00Z`).toLocaleString("en", { month: "long", timeZone: "UTC" });

interface LaneOf {
  height: number;
  name: string;
  under?: string;
  /** What stands beside the lane, at its left edge. */
  side?: (top: number) => ReactNode;
  draw: (top: number) => ReactNode;
}
