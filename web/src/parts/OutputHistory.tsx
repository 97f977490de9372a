import { scaleLinear, scaleUtc } from "d3-scale";
import styled from "styled-components";
import { t } from "../app/theme";
import { dated } from "./days";

export interface OutputPoint {
  on: string;
  rate: number;
  text: string;
  /** A bench is a disc, a finished round a ring. */
  bench: boolean;
  inForce: boolean;
}

const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 680px;
  height: auto;
  .axis {
    fill: none;
    stroke: ${t.rule};
  }
  .band {
    fill: ${t.wash};
  }
  .force {
    stroke: ${t.accent};
    stroke-width: 1.5;
  }
  .bench {
    fill: ${t.ink};
  }
  .now {
    fill: ${t.accent};
  }
  .round {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  ${t.phone} {
    text {
      font-size: 19px;
    }
  }
`;

/** A sprayer's output over its seasons: the band is 5 % about the calibration in force. Drift is seen before it is felt. */
export function OutputHistory({ points, symbol }: { points: OutputPoint[]; symbol: string }) {
  const days = points.map((p) => new Date(p.on));
  const first = new Date(Math.min(...days.map(Number)));
  const last = new Date(Math.max(...days.map(Number), Number(first) + 86400_000 * 60));
  const rates = points.map((p) => p.rate);
  const force = points.find((p) => p.inForce);
  const low = Math.min(...rates, (force?.rate ?? Infinity) * 0.95);
  const high = Math.max(...rates, (force?.rate ?? 0) * 1.05);
  const pad = (high - low) * 0.12 || high * 0.1;
  const x = scaleUtc([first, last], [62, 660]);
  const y = scaleLinear([low - pad, high + pad], [164, 14]);
  return (
    <Sheet viewBox="0 0 680 196" role="img" aria-label={`Output over time, ${symbol}`}>
      {force && (
        <>
          <rect
            className="band"
            x={52}
            width={620}
            y={y(force.rate * 1.05)}
            height={y(force.rate * 0.95) - y(force.rate * 1.05)}
          />
          <line className="force" x1={52} x2={672} y1={y(force.rate)} y2={y(force.rate)} />
        </>
      )}
      <path className="axis" d="M52 10V164H672" />
      {y.ticks(4).map((v) => (
        <text key={v} x={46} y={y(v) + 4} textAnchor="end">
          {v}
        </text>
      ))}
      {x.ticks(6).map((d) => (
        <text key={Number(d)} x={x(d)} y={182} textAnchor="middle">
          {d.toLocaleDateString("en", { month: "short", year: "2-digit", timeZone: "UTC" })}
        </text>
      ))}
      {points.map((p, i) => (
        <circle
          key={i}
          className={!p.bench ? "round" : p.inForce ? "now" : "bench"}
          cx={x(new Date(p.on))}
          cy={y(p.rate)}
          r={p.inForce ? 7 : 5}
        >
          <title>{`${dated(p.on)}: ${p.text}`}</title>
        </circle>
      ))}
      <text x={58} y={22}>
        {symbol}
      </text>
    </Sheet>
  );
}
