import type { MouseEvent } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { closed, frame } from "./ground";
import { GroundSheet } from "./GroundSheet";
import { ScaleBar } from "./ScaleBar";

const WIDTH = 520;
const MARGIN = 34;
const MOST_HEIGHT = 330;

const Pin = styled.g`
  circle {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  text {
    font-weight: 600;
  }
`;

/** A plan that is pressed, with its words or fields beside it. */
export const PlanBeside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px;
  gap: 12px 20px;
  align-items: start;
  margin-top: 14px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  plan: Schemas["PlanOut"];
  us: boolean;
  label: string;
  /** Places on it [m], numbered in their order. */
  spots?: { x: number; y: number }[];
  /** Round patches on it [m]. */
  patches?: { x: number; y: number; across: number | null }[];
  /** Called with the place [m] that was pressed. */
  onPick?: (x: number, y: number) => void;
}

/** An area to scale, with its measured lines, a scale bar, and north where the plan has one. */
export function AreaPlan({ plan, us, label, spots = [], patches = [], onPick }: Props) {
  const f = frame(plan, WIDTH, MOST_HEIGHT, MARGIN);
  const { x, y } = f;
  const many = plan.marks.length > 14;
  const pick = (e: MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const at = {
      x: ((e.clientX - box.left) * f.width) / box.width,
      y: ((e.clientY - box.top) * f.height) / box.height,
    };
    onPick?.(plan.left + (at.x - x(plan.left)) / f.scale, plan.top - (at.y - y(plan.top)) / f.scale);
  };
  return (
    <GroundSheet
      viewBox={`0 0 ${f.width} ${f.height}`}
      style={{ maxWidth: 560, cursor: onPick ? "crosshair" : undefined }}
      role="img"
      onClick={onPick && pick}
      aria-label={label}
    >
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
      {patches.map((p, i) => (
        <circle
          key={i}
          className="cut"
          cx={x(p.x)}
          cy={y(p.y)}
          r={Math.max(4, ((p.across ?? 0) / 2) * f.scale)}
          fillOpacity={0.6}
        />
      ))}
      {spots.map((s, i) => (
        <Pin key={i}>
          <circle cx={x(s.x)} cy={y(s.y)} r={10} />
          <text x={x(s.x)} y={y(s.y) + 4} textAnchor="middle">
            {i + 1}
          </text>
        </Pin>
      ))}
      <ScaleBar frame={f} span={plan.right - plan.left} us={us} north={plan.north} />
    </GroundSheet>
  );
}
