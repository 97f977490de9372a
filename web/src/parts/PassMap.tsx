import { useId } from "react";
import type { Schemas } from "../api/client";
import { closed, frame, open, type Frame } from "./ground";
import { GroundSheet } from "./GroundSheet";
import { ScaleBar } from "./ScaleBar";

interface Props {
  plan: Schemas["PassesOut"];
  us: boolean;
  /** Number the sides, for saying where something lies. */
  sides?: boolean;
}

/** The ground to scale with the passes on it, what is kept off, and where a filling runs out. */
export function PassMap({ plan, us, sides }: Props) {
  const f = frame(plan, 720, 470);
  const clip = useId();
  const first = plan.passes[0]?.line[0];
  return (
    <GroundSheet
      viewBox={`0 0 ${f.width} ${f.height}`}
      role="img"
      aria-label={`Passes on the plan: ${plan.passes.length} in all`}
    >
      {plan.outlines.map((o, i) => (
        <path key={i} className={o.hole ? "cut" : "turf"} d={closed(f, o.ring)} />
      ))}
      <clipPath id={clip}>
        {plan.outlines.map((o, i) => !o.hole && <path key={i} d={closed(f, o.ring)} />)}
      </clipPath>
      {plan.zones.map((z, i) => (
        <path
          key={i}
          className={z.buffer ? "buffer" : "keep"}
          d={closed(f, z.ring)}
          clipPath={z.buffer ? `url(#${clip})` : undefined}
        >
          <title>{z.name}</title>
        </path>
      ))}
      {plan.passes.map((p, i) => (
        <g key={i}>
          <path
            className={`pass ${p.round === 2 ? "second" : ""} ${p.kind === "edge" ? "edge" : ""} ${p.guide ? "guide" : ""}`}
            d={open(f, p.line)}
          />
          {p.kind === "stripe" && p.round === 1 && plan.passes.length < 90 && (
            <Arrow from={p.line[0]!} to={p.line.at(-1)!} x={f.x} y={f.y} />
          )}
        </g>
      ))}
      {plan.zones
        .filter((z) => !z.buffer)
        .map((z, i) => (
          <Name key={i} of={z} f={f} />
        ))}
      {first && (
        <circle className="refill" cx={f.x(first.x)} cy={f.y(first.y)} r={5}>
          <title>Start</title>
        </circle>
      )}
      {plan.refills.map((r) => (
        <g key={r.text}>
          <circle className="refill" cx={f.x(r.x)} cy={f.y(r.y)} r={10}>
            <title>{`Filling ${r.text} runs out`}</title>
          </circle>
          <text className="refilltext" x={f.x(r.x)} y={f.y(r.y) + 4} textAnchor="middle">
            {r.text}
          </text>
        </g>
      ))}
      {sides &&
        plan.sides.length < 40 &&
        plan.sides.map((s) => (
          <text key={s.text} x={f.x(s.x)} y={f.y(s.y) + 4} textAnchor="middle">
            {s.text}
          </text>
        ))}
      <ScaleBar frame={f} span={plan.right - plan.left} us={us} north={plan.north} />
    </GroundSheet>
  );
}

/** The name of what is kept off, beside it, and on the sheet. */
function Name({ of: zone, f }: { of: Schemas["PassesOut"]["zones"][number]; f: Frame }) {
  const xs = zone.ring.map((p) => f.x(p.x));
  const ys = zone.ring.map((p) => f.y(p.y));
  const right = Math.max(...xs) > f.width * 0.7;
  const [top, foot] = [Math.min(...ys), Math.max(...ys)];
  return (
    <text
      x={right ? Math.min(...xs) - 6 : Math.max(...xs) + 6}
      y={foot - top > 60 ? top + 14 : (top + foot) / 2 + 4}
      textAnchor={right ? "end" : "start"}
    >
      {zone.name}
    </text>
  );
}

interface Ends {
  from: { x: number; y: number };
  to: { x: number; y: number };
  x: (v: number) => number;
  y: (v: number) => number;
}

/** A head a third along a pass, which way it is walked. */
function Arrow({ from, to, x, y }: Ends) {
  const at = { x: x(from.x + (to.x - from.x) * 0.4), y: y(from.y + (to.y - from.y) * 0.4) };
  const turn = (Math.atan2(y(to.y) - y(from.y), x(to.x) - x(from.x)) * 180) / Math.PI;
  return (
    <path className="arrow" d="M5 0l-8 -3.4v6.8z" transform={`translate(${at.x} ${at.y}) rotate(${turn})`} />
  );
}
