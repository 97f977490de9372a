import type { Schemas } from "../api/client";
import { Drawing } from "./drawing";

const TOP = 66;
const BOTTOM = 214;
const LEFT = 14;
const RIGHT = 94;

/** A hose-end's bottle, filled product first and water to the mark, with its dial and how long it lasts. */
export function Bottle({ load, capacity }: { load: Schemas["LoadOut"]; capacity: string }) {
  const y = (share: number) => BOTTOM - (BOTTOM - TOP) * Math.min(1, share);
  const full = y(load.share);
  const product = y(Math.max(0, ...load.acts.filter((a) => a.pours).map((a) => a.level)));
  const names = load.pours.map((p) => p.product);
  const poured = load.pours.map((p) => p.amount).join(", ");
  const wall = `M40 42 h28 v10 L${RIGHT} ${TOP} V${BOTTOM} H${LEFT} V${TOP} L40 52 z`;
  const said = [
    { at: Math.min(product + 14, BOTTOM - 4), text: poured, soft: names.length === 1 ? names[0]! : "" },
    ...(load.water ? [{ at: Math.max(full + 12, TOP + 4), text: `water to ${load.volume}`, soft: "" }] : []),
  ];
  return (
    <Drawing
      $width={270}
      viewBox="0 0 270 240"
      role="img"
      aria-label={`${load.name}: ${poured}${load.water ? `, water to ${load.volume}` : ""}, of a ${capacity} bottle, dial at ${load.dial}${load.time ? `, lasts ${load.time}` : ""}`}
    >
      <clipPath id={`bottle-${load.number}`}>
        <path d={wall} />
      </clipPath>
      <g clipPath={`url(#bottle-${load.number})`}>
        <rect className="water" x={0} y={full} width={120} height={BOTTOM - full} />
        <rect className="liquid" x={0} y={product} width={120} height={BOTTOM - product} />
      </g>
      <path className="wall" d={wall} />
      {[0.25, 0.5, 0.75].map((s) => (
        <line key={s} x1={LEFT} x2={LEFT + 8} y1={y(s)} y2={y(s)} className="wall" />
      ))}
      <circle className="turn" cx={54} cy={26} r={15} />
      <line className="level" x1={54} y1={26} x2={64} y2={16} />
      <path className="wall" fill="none" d="M69 26 H84" />
      <text x={92} y={22}>{`dial at ${load.dial}`}</text>
      <text x={92} y={38}>
        {load.time ? `lasts ${load.time}, ${load.spray}` : `becomes ${load.spray}`}
      </text>
      {said.map((s) => (
        <g key={s.text}>
          <line className="level" x1={RIGHT} y1={s.at - 4} x2={RIGHT + 12} y2={s.at - 4} />
          <text x={RIGHT + 18} y={s.at}>
            {s.text}
          </text>
          {s.soft && (
            <text x={RIGHT + 18} y={s.at - 15}>
              {s.soft}
            </text>
          )}
        </g>
      ))}
      <text x={54} y={232} textAnchor="middle">{`holds ${capacity}`}</text>
    </Drawing>
  );
}
