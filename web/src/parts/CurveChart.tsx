import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 520px;
  height: auto;
  .axis {
    stroke: ${t.rule};
  }
  .line {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 2;
  }
  .test {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.4;
  }
  .chosen {
    fill: ${t.accent};
  }
  .lead {
    stroke: ${t.accent};
    stroke-dasharray: 4 3;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  ${t.phone} {
    text {
      font-size: 17px;
    }
  }
`;

interface Props {
  curve: Schemas["CurveOut"];
  /** A setting and its rate to mark. */
  at?: { setting: number; rate: number };
}

/** What a spreader put down at its tested settings; straight between them, and nothing beyond. */
export function CurveChart({ curve, at }: Props) {
  const all = [...curve.tested, ...curve.points];
  const settings = all.map((p) => p.setting);
  const low = Math.min(...settings);
  const high = Math.max(...settings);
  const pad = Math.max(0.5, (high - low) * 0.15);
  const x = scaleLinear([low - pad, high + pad], [48, 506]);
  const y = scaleLinear([0, Math.max(...all.map((p) => p.rate)) * 1.15], [182, 12]);
  return (
    <Sheet viewBox="0 0 520 216" role="img" aria-label={`Tested settings of ${curve.product}`}>
      <path className="axis" fill="none" d="M48 12V182H506" />
      {y.ticks(4).map((v) => (
        <text key={v} x={42} y={y(v) + 4} textAnchor="end">
          {v}
        </text>
      ))}
      {x.ticks(6).map((v) => (
        <text key={v} x={x(v)} y={198} textAnchor="middle">
          {v}
        </text>
      ))}
      <path
        className="line"
        d={curve.points
          .map((p, i) => `${i ? "L" : "M"}${x(p.setting).toFixed(1)} ${y(p.rate).toFixed(1)}`)
          .join("")}
      />
      {at && (
        <path
          className="lead"
          fill="none"
          d={`M48 ${y(at.rate).toFixed(1)}H${x(at.setting).toFixed(1)}V182`}
        />
      )}
      {curve.tested.map((p, i) => (
        <circle key={i} className="test" cx={x(p.setting)} cy={y(p.rate)} r={4.5}>
          <title>{p.text}</title>
        </circle>
      ))}
      {at && <circle className="chosen" cx={x(at.setting)} cy={y(at.rate)} r={6} />}
      <text x={506} y={212} textAnchor="end">
        setting
      </text>
      <text x={54} y={20}>
        {curve.symbol}
      </text>
    </Sheet>
  );
}
