import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Drawing } from "./drawing";

type Measure = Schemas["MeasureOut"];

const TOP = 26;
const BOTTOM = 206;

/** The graduations of a straight-sided vessel: short ones at every mark it has, long numbered ones at a few. */
function Graduations({ vessel, x, y }: { vessel: Measure["vessel"]; x: number; y: (v: number) => number }) {
  const count = Math.round(vessel.capacity / vessel.graduation);
  return (
    <>
      {count <= 64 &&
        Array.from({ length: count }, (_, i) => (i + 1) * vessel.graduation).map((v) => (
          <line key={v} className="tick" x1={x} x2={x + 7} y1={y(v)} y2={y(v)} />
        ))}
      {vessel.marks.map((v) => (
        <g key={v}>
          <line className="long" x1={x} x2={x + 13} y1={y(v)} y2={y(v)} />
          <text x={x + 17} y={y(v) + 4}>
            {v}
          </text>
        </g>
      ))}
    </>
  );
}

function Mark({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g>
      <line className="mark" x1={x1} x2={x2} y1={y} y2={y} />
      <path className="eye" d={`M${x1} ${y} l-9 -5 v10 z`} />
      <text className="now" x={x1 - 12} y={y + 5} textAnchor="end">
        {text}
      </text>
    </g>
  );
}

function Syringe({ m }: { m: Measure }) {
  const y = (v: number) => TOP + 30 + ((BOTTOM - TOP - 46) * v) / m.vessel.capacity;
  return (
    <>
      <rect className="liquid" x={92} width={36} y={y(0)} height={y(m.mark) - y(0)} />
      <path
        className="wall"
        d={`M92 ${y(m.vessel.capacity) + 8} V${TOP + 30} L106 ${TOP + 22} V${TOP} h8 V${TOP + 22} L128 ${TOP + 30} V${y(m.vessel.capacity) + 8}`}
      />
      <path className="wall" d={`M93 ${y(m.mark)} h34 M110 ${y(m.mark)} V224 M94 224 h32`} />
      <Graduations vessel={m.vessel} x={129} y={y} />
      <Mark x1={90} x2={128} y={y(m.mark)} text={m.mark_text} />
    </>
  );
}

function Upright({ m, jug }: { m: Measure; jug: boolean }) {
  const height = BOTTOM - TOP - 10;
  const y = (v: number) => BOTTOM - (height * v) / m.vessel.capacity;
  const x = 76;
  const w = 74;
  return (
    <>
      <rect className="liquid" x={x} width={w} y={y(m.mark)} height={BOTTOM - y(m.mark)} />
      <path
        className="wall"
        d={
          jug
            ? `M${x - 8} ${TOP - 4} L${x} ${TOP + 8} V${BOTTOM} H${x + w} V${TOP} M${x + w} ${TOP + 22} h20 v${height * 0.55} h-20`
            : `M${x - 3} ${TOP - 2} L${x} ${TOP + 4} V${BOTTOM} H${x + w} V${TOP + 4} L${x + w + 3} ${TOP - 2}`
        }
      />
      <Graduations vessel={m.vessel} x={x + (jug ? 2 : 4)} y={y} />
      <Mark x1={x - 2} x2={x + w} y={y(m.mark)} text={m.mark_text} />
    </>
  );
}

function Scale({ m }: { m: Measure }) {
  const share = Math.max(0.08, m.mark / m.vessel.capacity);
  const heap = 70 * Math.sqrt(share);
  return (
    <>
      <path className="grain" d={`M${110 - heap} 120 Q110 ${120 - heap * 1.1} ${110 + heap} 120 Z`} />
      <path className="wall" d="M34 112 q0 12 14 12 h124 q14 0 14 -12 M100 124 v12 h20 v-12" />
      <path className="wall" d="M40 136 h140 l10 66 h-160 z" />
      <rect className="wall" x={62} y={152} width={96} height={34} />
      <text className="now" x={110} y={174} textAnchor="middle">
        {`${m.mark_text} ${m.vessel.unit}`}
      </text>
    </>
  );
}

/** The vessel that can measure a dose, filled to the mark, its graduations true. */
export function Vessel({ measure: m }: { measure: Measure }) {
  const shapes: Record<Measure["vessel"]["shape"], ReactNode> = {
    syringe: <Syringe m={m} />,
    cup: <Upright m={m} jug={false} />,
    jug: <Upright m={m} jug />,
    spoon: <Upright m={m} jug={false} />,
    scale: <Scale m={m} />,
  };
  return (
    <Drawing
      $width={210}
      viewBox="0 0 210 232"
      role="img"
      aria-label={`${m.instruction} in the ${m.vessel.name}`}
    >
      {shapes[m.vessel.shape]}
    </Drawing>
  );
}
