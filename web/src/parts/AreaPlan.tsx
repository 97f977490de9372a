import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { bar, closed, frame } from "./ground";

const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 560px;
  height: auto;
  .turf {
    fill: ${t.turf};
    stroke: ${t.ink};
    stroke-width: 1.6;
    stroke-linejoin: round;
    fill-rule: evenodd;
  }
  .cut {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.2;
    stroke-dasharray: 4 3;
  }
  .mark {
    stroke: ${t.accent};
    stroke-width: 0.8;
  }
  .scale {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.4;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.ink};
    paint-order: stroke;
    stroke: ${t.sheet};
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  ${t.phone} text {
    font-size: 18px;
  }
`;

const WIDTH = 520;
const MARGIN = 34;
const MOST_HEIGHT = 330;

/** An area to scale, with its measured lines, a scale bar, and north where the plan has one. */
export function AreaPlan({ plan, us, label }: { plan: Schemas["PlanOut"]; us: boolean; label: string }) {
  const f = frame(plan, WIDTH, MOST_HEIGHT, MARGIN);
  const { x, y, scale, height } = f;
  const { metres, text } = bar(Math.max(plan.right - plan.left, 0.01), us);
  const many = plan.marks.length > 14;
  return (
    <Sheet viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={label}>
      {plan.outlines.map((o, i) => (
        <path key={i} className={o.hole ? "cut" : "turf"} d={closed(f, o.ring)} />
      ))}
      {plan.marks.map((m, i) => {
        const mid = { x: (x(m.start.x) + x(m.end.x)) / 2, y: (y(m.start.y) + y(m.end.y)) / 2 };
        return (
          <g key={i}>
            <line className="mark" x1={x(m.start.x)} y1={y(m.start.y)} x2={x(m.end.x)} y2={y(m.end.y)} />
            {(!many || i % 2 === 0) && (
              <text x={mid.x} y={mid.y + 4} textAnchor="middle">
                {m.text}
              </text>
            )}
          </g>
        );
      })}
      <path
        className="scale"
        d={`M${MARGIN} ${height - 18} v6 h${(metres * scale).toFixed(1)} v-6`}
        aria-hidden
      />
      <text x={MARGIN + metres * scale + 8} y={height - 11}>
        {text}
      </text>
      {plan.north && (
        <g transform={`translate(${WIDTH - MARGIN} ${height - 30})`}>
          <path className="scale" d="M0 18 V0 M-5 7 L0 0 L5 7" />
          <text x={0} y={-5} textAnchor="middle">
            N
          </text>
        </g>
      )}
    </Sheet>
  );
}
