import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { dayOf } from "../../parts/days";
import { Hint } from "../../parts/Field";
import { Section } from "../../parts/Section";

type Clock = Schemas["ClockOut"];

const Sheet = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .axis {
    stroke: ${t.rule};
  }
  .goal {
    stroke: ${t.stop};
    stroke-dasharray: 5 3;
  }
  .line {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 2.2;
  }
  .line[data-turn="1"] {
    stroke: ${t.caution};
    stroke-dasharray: 8 3;
  }
  .line[data-turn="2"] {
    stroke: ${t.soft};
    stroke-dasharray: 2 3;
  }
  .end {
    fill: ${t.stop};
  }
  text {
    font: 500 13px ${t.text};
    fill: ${t.ink};
  }
  ${t.phone} {
    text {
      font-size: 29px;
    }
  }
`;
const DAY = 86_400_000;
const MOST = 1.6;

const at = (on: string) => Date.parse(on) / DAY;

/** The regulators at work on one ground, on one axis of days: how much of each one's target has run, and when it runs out. */
export function OneAxis({ clocks }: { clocks: Clock[] }) {
  const drawn = clocks.filter((c) => c.track.length > 1);
  const first = Math.min(...drawn.map((c) => at(c.since)));
  const last = Math.max(...drawn.map((c) => at(c.since) + c.track.length - 1));
  const x = scaleLinear([first, last], [46, 840]);
  const y = scaleLinear([0, MOST], [178, 14]).clamp(true);
  const ends = drawn.filter((c) => c.due).map((c) => `${c.product} on ${dayOf(c.due!)}`);
  return (
    <Section title={`Together on ${clocks[0]!.area}`}>
      <Sheet
        viewBox="0 0 860 214"
        role="img"
        aria-label={`Runs out: ${ends.join(", ") || "beyond the forecast"}`}
      >
        <path className="axis" d="M46 178H840" />
        <path className="goal" d={`M46 ${y(1)}H840`} />
        <text x={50} y={y(1) - 6}>
          target
        </text>
        {drawn.map((c, turn) => {
          const points = c.track.map((share, i) => [x(at(c.since) + i), y(share)] as const);
          const [endX, endY] = points.at(-1)!;
          return (
            <g key={c.product}>
              <path
                className="line"
                data-turn={turn}
                d={points.map(([a, b], i) => `${i ? "L" : "M"}${a.toFixed(1)} ${b.toFixed(1)}`).join("")}
              />
              {c.due && <circle className="end" cx={x(at(c.due))} cy={y(1)} r={5} />}
              <text x={Math.min(endX, 834)} y={endY < 34 ? endY + 20 : endY - 8} textAnchor="end">
                {c.product}
              </text>
            </g>
          );
        })}
        <text x={46} y={200}>
          {dayOf(new Date(first * DAY).toISOString().slice(0, 10))}
        </text>
        <text x={840} y={200} textAnchor="end">
          {dayOf(new Date(last * DAY).toISOString().slice(0, 10))}
        </text>
      </Sheet>
      <Hint>{ends.length ? `Runs out: ${ends.join("; ")}.` : "Neither runs out within the forecast."}</Hint>
    </Section>
  );
}
