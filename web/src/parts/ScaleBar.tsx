import { bar, type Frame } from "./ground";

interface Props {
  frame: Frame;
  span: number;
  us: boolean;
  north: boolean;
}

/** A scale bar, and north where the drawing has one; for the foot of a drawing of ground. */
export function ScaleBar({ frame: f, span, us, north }: Props) {
  const { metres, text } = bar(Math.max(span, 0.01), us);
  return (
    <g className="bar">
      <path fill="none" d={`M26 ${f.height - 16} v6 h${(metres * f.scale).toFixed(1)} v-6`} aria-hidden />
      <text x={26 + metres * f.scale + 8} y={f.height - 8}>
        {text}
      </text>
      {north && (
        <g transform={`translate(${f.width - 26} ${f.height - 26})`}>
          <path fill="none" d="M0 18 V0 M-5 7 L0 0 L5 7" />
          <text x={0} y={-5} textAnchor="middle">
            N
          </text>
        </g>
      )}
    </g>
  );
}
