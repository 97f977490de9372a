import type { Schemas } from "../api/client";
import { Bottle } from "./Bottle";
import { Drawing } from "./drawing";

type Load = Schemas["LoadOut"];

const TOP = 24;
const BOTTOM = 214;
const LEFT = 14;
const RIGHT = 108;
const APART = 19;
/** The longest name that fits beside the tank. */
const LONGEST = 20;

/** One thing that goes into the tank: its words, and how full the tank is then. */
interface Step {
  text: string;
  level: number;
  pours: boolean;
}

/** What goes in, in order: water to begin with, every product in its turn, and water to the mark. */
function stepsOf(load: Load): Step[] {
  const found: Step[] = [];
  for (const act of load.acts) {
    if (act.pours) found.push({ text: cut(act.pours), level: act.level, pours: true });
    else if (act.key === "top-up") found.push({ text: `to ${load.volume}`, level: load.share, pours: false });
    else if (act.level > (found.at(-1)?.level ?? 0))
      found.push({ text: "water", level: act.level, pours: false });
  }
  return found;
}

const cut = (name: string) => (name.length > LONGEST ? `${name.slice(0, LONGEST - 1)}…` : name);

/** Heights for the words beside the tank, each near its level and none on another, from the bottom up. */
export function spread(levels: number[], apart: number, bottom: number, top: number): number[] {
  const found: number[] = [];
  for (const y of levels) found.push(Math.min(y, (found.at(-1) ?? bottom + apart) - apart));
  const over = top - (found.at(-1) ?? top);
  if (over <= 0) return found;
  // too high: pushed down from the top, each as far as it must
  for (let i = found.length - 1, least = top; i >= 0; i--, least = found[i + 1]! + apart)
    found[i] = Math.max(found[i]!, least);
  return found;
}

/** A tank in its filling order, a hopper, or a hose-end's bottle: drawn to the machine's size, filled to what this load holds. */
export function Tank({ load, capacity }: { load: Load; capacity: string }) {
  if (load.dial) return <Bottle load={load} capacity={capacity} />;
  const height = BOTTOM - TOP;
  const y = (share: number) => BOTTOM - height * share;
  const share = Math.min(1, load.share);
  const poured = load.pours.map((p) => p.amount).join(", ");
  if (!load.volume) {
    const top = y(share);
    return (
      <Drawing
        $width={250}
        viewBox="0 0 250 240"
        role="img"
        aria-label={`${load.name}: ${poured} of a ${capacity} hopper`}
      >
        <clipPath id={`hopper-${load.number}`}>
          <path d={`M10 ${TOP} H200 L128 ${BOTTOM} H82 Z`} />
        </clipPath>
        <rect
          className="grain"
          x={0}
          y={top}
          width={220}
          height={BOTTOM - top}
          clipPath={`url(#hopper-${load.number})`}
        />
        <path className="wall" d={`M10 ${TOP} H200 L128 ${BOTTOM} H82 Z`} />
        <text x={105} y={14} textAnchor="middle">{`holds ${capacity}`}</text>
        <text x={105} y={232} textAnchor="middle">{`${poured} in this fill`}</text>
      </Drawing>
    );
  }
  const steps = stepsOf(load);
  const levels = steps.map((s) => y(Math.min(share, s.level)));
  const words = spread(levels, APART, BOTTOM - 6, TOP - 8);
  const band = Math.max(4, height * 0.025);
  return (
    <Drawing
      $width={270}
      viewBox="0 0 270 240"
      role="img"
      aria-label={`${load.name}: ${load.volume} of a ${capacity} tank, in filling order: ${steps.map((s) => s.text).join(", ")}`}
    >
      <rect className="water" x={LEFT} y={y(share)} width={RIGHT - LEFT} height={BOTTOM - y(share)} />
      {[...new Set(steps.flatMap((s, i) => (s.pours ? [levels[i]!] : [])))].map((at) => (
        <rect key={at} className="liquid" x={LEFT} y={at - band} width={RIGHT - LEFT} height={band} />
      ))}
      <path className="wall" d={`M46 12 h30 v12 H${RIGHT} V${BOTTOM} H${LEFT} V${TOP} H46 z`} />
      {[0.25, 0.5, 0.75].map((s) => (
        <line key={s} x1={LEFT} x2={LEFT + 8} y1={y(s)} y2={y(s)} className="wall" />
      ))}
      {steps.map((s, i) => (
        <g key={`${i} ${s.text}`}>
          <path
            className="level"
            fill="none"
            d={`M${s.pours ? RIGHT : LEFT} ${levels[i]} H${RIGHT} L120 ${words[i]}`}
          />
          <circle className="turn" cx={129} cy={words[i]} r={8.5} />
          <text className="number" x={129} y={words[i]! + 4} textAnchor="middle">
            {i + 1}
          </text>
          <text x={142} y={words[i]! + 4}>
            {s.text}
          </text>
        </g>
      ))}
      <text x={61} y={232} textAnchor="middle">{`holds ${capacity}`}</text>
    </Drawing>
  );
}
