import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 560px;
  height: auto;
  .band {
    fill: ${t.wash};
  }
  .mean {
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  .run {
    fill: ${t.accent};
  }
  .odd {
    fill: ${t.stop};
  }
  .link {
    stroke: ${t.rule};
    stroke-width: 1;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  .off {
    fill: ${t.ink};
  }
  ${t.phone} {
    text {
      font-size: 17px;
    }
  }
`;

/** Runs on a line about their mean: the band holds those that agree within 5 %; the one that stands alone is a square. */
export function RunsRule({ runs }: { runs: Schemas["RunOut"][] }) {
  const reach = Math.max(0.12, ...runs.map((r) => Math.abs(r.off) * 1.15));
  const x = (off: number) => 270 + (off / reach) * 180;
  const height = runs.length * 26 + 34;
  return (
    <Sheet viewBox={`0 0 560 ${height}`} role="img" aria-label={`${runs.length} runs about their mean`}>
      <rect className="band" x={x(-0.05)} width={x(0.05) - x(-0.05)} y={8} height={height - 34} />
      <line className="mean" x1={x(0)} x2={x(0)} y1={4} y2={height - 24} />
      {runs.map((r, i) => {
        const y = 24 + i * 26;
        return (
          <g key={i}>
            <text x={0} y={y + 4}>{`Run ${i + 1}: ${r.text}`}</text>
            <line className="link" x1={x(0)} x2={x(r.off)} y1={y} y2={y} />
            {r.odd ? (
              <rect className="odd" x={x(r.off) - 6} y={y - 6} width={12} height={12} />
            ) : (
              <circle className="run" cx={x(r.off)} cy={y} r={5.5} />
            )}
            <text className="off" x={556} y={y + 4} textAnchor="end">
              {`${r.off > 0 ? "+" : r.off < 0 ? "−" : ""}${Math.abs(r.off * 100).toFixed(1)} %${r.odd ? ", alone" : ""}`}
            </text>
          </g>
        );
      })}
      <text x={x(0)} y={height - 8} textAnchor="middle">
        mean
      </text>
      <text x={x(-0.05) - 4} y={height - 8} textAnchor="end">
        −5 %
      </text>
      <text x={x(0.05) + 4} y={height - 8}>
        +5 %
      </text>
    </Sheet>
  );
}
