import styled from "styled-components";
import type { Schemas } from "../../../api/client";
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
`;

/** The pH now, what the grass likes, and where the plan leads, on one scale from 4 to 9. */
export function PhRule({ plan }: { plan: Schemas["PhPlanOut"] }) {
  const x = (ph: number) => 20 + ((Math.max(4, Math.min(9, ph)) - 4) / 5) * 660;
  const now = x(plan.ph);
  const aim = x(plan.target);
  return (
    <Sheet
      viewBox="0 0 700 92"
      role="img"
      aria-label={`pH ${Number(plan.ph.toFixed(2))} now, the grass likes ${plan.low} to ${plan.high}, target ${plan.target}`}
    >
      <rect className="likes" x={x(plan.low)} y={40} width={x(plan.high) - x(plan.low)} height={18} />
      <text x={(x(plan.low) + x(plan.high)) / 2} y={53} textAnchor="middle">
        the grass likes
      </text>
      <line className="base" x1={20} x2={680} y1={58} y2={58} />
      {[4, 5, 6, 7, 8, 9].map((ph) => (
        <g key={ph}>
          <line className="base" x1={x(ph)} x2={x(ph)} y1={58} y2={66} />
          <text x={x(ph)} y={82} textAnchor="middle">
            {ph}
          </text>
        </g>
      ))}
      {plan.verdict !== "leave" && (
        <>
          <line className="way" x1={now} x2={aim} y1={22} y2={22} />
          <circle className="aim" cx={aim} cy={22} r={6} />
        </>
      )}
      <path className="now" d={`M${now} 57 l-7 -11 h14 z`} />
      <line className="base" x1={now} x2={now} y1={22} y2={46} />
      <text className="figure" x={now} y={14} textAnchor="middle">
        {Number(plan.ph.toFixed(2))}
      </text>
    </Sheet>
  );
}
