import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { closed, frame } from "./ground";
import { GroundSheet } from "./GroundSheet";
import { ScaleBar } from "./ScaleBar";

const Row = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: flex-end;
  margin-bottom: 12px;
  li {
    display: grid;
    justify-items: center;
    font-size: ${t.s13};
    color: ${t.soft};
  }
  svg {
    width: 26px;
    height: 44px;
  }
`;
const Sheet = styled(GroundSheet)`
  max-width: 620px;
  .can {
    stroke: ${t.ink};
    stroke-width: 1.4;
    fill: ${t.sheet};
  }
  .dry {
    stroke: ${t.stop};
    stroke-width: 2.6;
    stroke-dasharray: 4 2;
  }
  .wet {
    stroke: ${t.accent};
    stroke-width: 2.6;
  }
  .water {
    fill: ${t.liquid};
  }
  .dryword {
    fill: ${t.stop};
    font-weight: 700;
  }
`;

interface Props {
  audit: Schemas["AuditOut"];
  plan: Schemas["PlanOut"] | null;
  us: boolean;
}

/** The cans where they stood, filled to their share of the mean; the dry and the wet are ringed and named. */
export function CanMap({ audit, plan, us }: Props) {
  const placed = audit.cans.filter((c) => c.x !== null && c.y !== null);
  if (placed.length < audit.cans.length || !placed.length) return <CanRow cans={audit.cans} />;
  const xs = placed.map((c) => c.x!);
  const ys = placed.map((c) => c.y!);
  const box = plan ?? {
    left: Math.min(...xs) - 2,
    right: Math.max(...xs) + 2,
    bottom: Math.min(...ys) - 2,
    top: Math.max(...ys) + 2,
    north: false,
    outlines: [],
  };
  const f = frame(box, 620, 400);
  const r = Math.max(11, Math.min(20, 200 / Math.sqrt(placed.length * 6)));
  return (
    <Sheet viewBox={`0 0 ${f.width} ${f.height}`} role="img" aria-label={`${placed.length} cans on the plan`}>
      {box.outlines.map((o, i) => (
        <path key={i} className={o.hole ? "cut" : "turf"} d={closed(f, o.ring)} />
      ))}
      {placed.map((c) => {
        const [x, y] = [f.x(c.x!), f.y(c.y!)];
        const full = Math.min(1, c.share / 2);
        return (
          <g key={c.number} data-can={c.state}>
            <circle className={`can ${c.state}`} cx={x} cy={y} r={r} />
            <path className="water" d={segment(x, y, r - 1.5, full)} />
            <text
              x={x}
              y={y + r + 13}
              textAnchor="middle"
              className={c.state === "dry" ? "dryword" : undefined}
            >
              {c.state === "even" ? c.text : `${c.text}, ${c.state}`}
            </text>
            <title>{`Can ${c.number}: ${c.text}, ${Math.round(c.share * 100)} % of the mean`}</title>
          </g>
        );
      })}
      <ScaleBar frame={f} span={box.right - box.left} us={us} north={box.north} />
    </Sheet>
  );
}

/** The part of a circle below a level, 0 empty to 1 full. */
function segment(x: number, y: number, r: number, full: number): string {
  const level = y + r - 2 * r * full;
  const half = Math.sqrt(Math.max(0, r * r - (level - y) ** 2));
  return `M${x - half} ${level}A${r} ${r} 0 ${full > 0.5 ? 1 : 0} 0 ${x + half} ${level}Z`;
}

/** Cans whose places were not noted, in a row. */
function CanRow({ cans }: { cans: Schemas["CanOut"][] }) {
  return (
    <Row aria-label="Cans">
      {cans.map((c) => (
        <li key={c.number} data-can={c.state}>
          <svg viewBox="0 0 26 44" aria-hidden>
            <rect
              x={4}
              y={42 - Math.min(1, c.share / 2) * 38}
              width={18}
              height={Math.min(1, c.share / 2) * 38}
              fill={t.liquid}
            />
            <path
              d="M4 3V42H22V3"
              fill="none"
              stroke={c.state === "dry" ? t.stop : t.ink}
              strokeWidth={c.state === "dry" ? 3 : 1.5}
            />
          </svg>
          {c.text}
          {c.state !== "even" && <strong>{c.state}</strong>}
        </li>
      ))}
    </Row>
  );
}
