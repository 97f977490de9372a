import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { closed, frame } from "../../parts/ground";
import { GroundSheet } from "../../parts/GroundSheet";
import { ScaleBar } from "../../parts/ScaleBar";

const WIDTH = 520;
const MARGIN = 26;
const MOST_HEIGHT = 300;
const CROWDED = 11;
const PACKED = 16;

/** What tells treatments apart, besides their letter: the untreated one is bare. */
export const fills = [t.sheet, t.turf, t.liquid, t.grain, t.cautionWash, t.mix];
export const letters = ["–", "A", "B", "C", "D", "E"];

const Key = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-top: 8px;
  font-size: ${t.s13};
  li {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  i {
    display: grid;
    place-items: center;
    width: 22px;
    height: 18px;
    border: 1px solid ${t.ink};
    font: 600 12px ${t.text};
  }
`;

interface Props {
  plan: Schemas["PlanOut"];
  plots: Schemas["PlotShapeOut"][];
  us: boolean;
  label: string;
  /** The treatments' names; without them it is blind: numbers alone. */
  names?: string[];
  /** The places of those treatments that it is about; the others are drawn bare. */
  own?: number[];
}

/** The plots of a trial to scale, numbered, each marked by its treatment's letter and tint. */
export function TrialMap({ plan, plots, us, label, names, own }: Props) {
  const f = frame(plan, WIDTH, MOST_HEIGHT, MARGIN);
  const shown = (p: Schemas["PlotShapeOut"]) => names && (!own || own.includes(p.treatment));
  const stagger = plots.length > PACKED ? 22 : plots.length > CROWDED ? 11 : 0;
  return (
    <div>
      <GroundSheet
        viewBox={`0 0 ${f.width} ${f.height}`}
        style={{ maxWidth: 560 }}
        role="img"
        aria-label={label}
      >
        {plan.outlines.map((o, i) => (
          <path key={i} className={o.hole ? "cut" : "bare"} d={closed(f, o.ring)} />
        ))}
        {plots.flatMap((p) =>
          p.rings.map((ring, i) => (
            <path
              key={`${p.number} ${i}`}
              className="bare"
              d={closed(f, ring)}
              style={{ fill: shown(p) ? fills[p.treatment] : "none" }}
            />
          )),
        )}
        {plots.map((p) => (
          <g key={p.number} opacity={own && !shown(p) ? 0.55 : 1}>
            <text x={f.x(p.x)} y={f.y(p.y) + (p.number % 2 ? -stagger : stagger)} textAnchor="middle">
              {p.number}
            </text>
            {shown(p) && (
              <text
                x={f.x(p.x)}
                y={f.y(p.y) + (p.number % 2 ? -stagger : stagger) + 20}
                textAnchor="middle"
                style={{ fontWeight: 700 }}
              >
                {letters[p.treatment]}
              </text>
            )}
          </g>
        ))}
        <ScaleBar frame={f} span={plan.right - plan.left} us={us} north={plan.north} />
      </GroundSheet>
      {names && (
        <Key aria-label="What the letters mean">
          {names.map((name, i) => (
            <li key={name}>
              <i style={{ background: !own || own.includes(i) ? fills[i] : "none" }}>{letters[i]}</i>
              {name}
            </li>
          ))}
        </Key>
      )}
    </div>
  );
}
