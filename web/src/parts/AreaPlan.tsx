import type { Schemas } from "../api/client";
import { closed, frame } from "./ground";
import { GroundSheet } from "./GroundSheet";
import { ScaleBar } from "./ScaleBar";

const WIDTH = 520;
const MARGIN = 34;
const MOST_HEIGHT = 330;

/** An area to scale, with its measured lines, a scale bar, and north where the plan has one. */
export function AreaPlan({ plan, us, label }: { plan: Schemas["PlanOut"]; us: boolean; label: string }) {
  const f = frame(plan, WIDTH, MOST_HEIGHT, MARGIN);
  const { x, y } = f;
  const many = plan.marks.length > 14;
  return (
    <GroundSheet
      viewBox={`0 0 ${f.width} ${f.height}`}
      style={{ maxWidth: 560 }}
      role="img"
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
      <ScaleBar frame={f} span={plan.right - plan.left} us={us} north={plan.north} />
    </GroundSheet>
  );
}
