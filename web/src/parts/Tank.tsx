import type { Schemas } from "../api/client";
import { Drawing } from "./drawing";

type Load = Schemas["LoadOut"];

const TOP = 24;
const BOTTOM = 214;
const LEFT = 22;
const RIGHT = 128;

function Turn({ n, y, text }: { n: number; y: number; text: string }) {
  return (
    <g>
      <circle className="turn" cx={146} cy={y} r={8.5} />
      <text className="number" x={146} y={y + 4} textAnchor="middle">
        {n}
      </text>
      <text x={160} y={y + 4}>
        {text}
      </text>
    </g>
  );
}

/** A tank in its filling order, or a hopper: drawn to the machine's size, filled to what this load holds. */
export function Tank({ load, capacity }: { load: Load; capacity: string }) {
  const height = BOTTOM - TOP;
  const y = (share: number) => BOTTOM - height * share;
  const share = Math.min(1, load.share);
  if (!load.volume) {
    const top = y(share);
    return (
      <Drawing
        $width={250}
        viewBox="0 0 250 240"
        role="img"
        aria-label={`${load.name}: ${load.product} of a ${capacity} hopper`}
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
        <text x={105} y={232} textAnchor="middle">{`${load.product} in this fill`}</text>
      </Drawing>
    );
  }
  const half = y(share / 2);
  const band = Math.max(4, height * 0.03);
  return (
    <Drawing
      $width={250}
      viewBox="0 0 250 240"
      role="img"
      aria-label={`${load.name}: ${load.volume} of a ${capacity} tank, in filling order`}
    >
      <rect className="water" x={LEFT} y={y(share)} width={RIGHT - LEFT} height={BOTTOM - y(share)} />
      <rect className="liquid" x={LEFT} y={half - band} width={RIGHT - LEFT} height={band} />
      <path className="wall" d={`M60 12 h30 v12 H${RIGHT} V${BOTTOM} H${LEFT} V${TOP} H60 z`} />
      {[0.25, 0.5, 0.75].map((s) => (
        <line key={s} x1={LEFT} x2={LEFT + 8} y1={y(s)} y2={y(s)} className="wall" />
      ))}
      <line className="level" x1={LEFT} x2={136} y1={half} y2={half} />
      <line className="level" x1={LEFT} x2={136} y1={y(share)} y2={y(share)} />
      <Turn n={1} y={Math.min(BOTTOM - 10, half + 16)} text="half the water" />
      <Turn n={2} y={half - 8} text="product, rinses" />
      <Turn n={3} y={Math.min(y(share), half - 30)} text={`to ${load.volume}`} />
      <text x={75} y={232} textAnchor="middle">{`holds ${capacity}`}</text>
    </Drawing>
  );
}
