import styled from "styled-components";
import { t } from "../../../app/theme";

const Sheet = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  margin-bottom: 8px;
  .base {
    stroke: ${t.rule};
  }
  .likes {
    fill: ${t.wash};
    stroke: ${t.accent};
  }
  .now {
    fill: ${t.ink};
  }
  .aim {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 2;
  }
  .way {
    stroke: ${t.accent};
    stroke-width: 1.4;
    stroke-dasharray: 4 3;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  .figure {
    font: 600 14px ${t.text};
    fill: ${t.ink};
  }
  ${t.phone} {
    text {
      font-size: 22px;
    }
    .figure {
      font-size: 24px;
    }
  }
`;

interface Props {
  label: string;
  ticks: number[];
  band: { low: number; high: number; text: string };
  now: number;
  aim: number | null;
  unit?: string;
}

/** What is now, where it leads and what is liked, on one scale from the first tick to the last. */
export function WayRule({ label, ticks, band, now, aim, unit = "" }: Props) {
  const first = ticks[0]!;
  const last = ticks[ticks.length - 1]!;
  const x = (value: number) => 20 + ((Math.max(first, Math.min(last, value)) - first) / (last - first)) * 660;
  const here = x(now);
  return (
    <Sheet viewBox="0 -10 700 102" role="img" aria-label={label}>
      <rect className="likes" x={x(band.low)} y={40} width={x(band.high) - x(band.low)} height={18} />
      <text x={(x(band.low) + x(band.high)) / 2} y={54} textAnchor="middle">
        {band.text}
      </text>
      <line className="base" x1={20} x2={680} y1={58} y2={58} />
      {ticks.map((tick) => (
        <g key={tick}>
          <line className="base" x1={x(tick)} x2={x(tick)} y1={58} y2={66} />
          <text
            x={unit && tick === last ? 698 : x(tick)}
            y={86}
            textAnchor={unit && tick === last ? "end" : "middle"}
          >
            {tick === last ? `${tick}${unit}` : tick}
          </text>
        </g>
      ))}
      {aim !== null && (
        <>
          <line className="way" x1={here} x2={x(aim)} y1={22} y2={22} />
          <circle className="aim" cx={x(aim)} cy={22} r={6} />
        </>
      )}
      <path className="now" d={`M${here} 57 l-7 -11 h14 z`} />
      <line className="base" x1={here} x2={here} y1={22} y2={46} />
      <text className="figure" x={here} y={10} textAnchor="middle">
        {Number(now.toFixed(2))}
      </text>
    </Sheet>
  );
}
