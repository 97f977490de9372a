import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

type Pattern = Schemas["PatternOut"];

const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 640px;
  height: auto;
  .pan {
    fill: ${t.grain};
    stroke: ${t.ink};
    stroke-width: 1;
  }
  .swath {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 2.5;
  }
  .even {
    stroke: ${t.rule};
    stroke-dasharray: 5 4;
  }
  .base {
    stroke: ${t.ink};
  }
  .track {
    stroke: ${t.ink};
    stroke-width: 1.5;
    stroke-dasharray: 2 3;
  }
  .middle {
    fill: ${t.caution};
  }
  .good {
    fill: ${t.wash};
  }
  .line {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.2;
  }
  .dot {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.4;
    cursor: pointer;
  }
  .dot.chosen {
    fill: ${t.accent};
    stroke: ${t.accent};
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  .now {
    fill: ${t.ink};
    font-weight: 600;
  }
  ${t.phone} {
    text {
      font-size: 15px;
    }
  }
`;

/** A pan test: what each pan caught, where its middle lies from the track, and what overlapping passes make of it. */
export function PatternChart({ pattern }: { pattern: Pattern }) {
  const { catches, track, apart_m: apart, middle_m: middle, swath, mean } = pattern;
  const count = catches.length;
  const x = scaleLinear([-0.5, count - 0.5], [30, 630]);
  const top = Math.max(1, ...swath) * 1.08;
  const y = scaleLinear([0, top], [190, 14]);
  const wide = x(1) - x(0);
  const pans = pattern.spacings.find((s) => s.chosen)?.pans ?? count;
  const cells = Array.from({ length: count }, (_, i) => swath[mod(i - track, swath.length)]!);
  return (
    <Sheet viewBox="0 0 640 238" role="img" aria-label={`Pattern across the path, ${count} pans`}>
      {catches.map((c, i) => (
        <rect
          key={i}
          className="pan"
          x={x(i) - wide * 0.36}
          width={wide * 0.72}
          y={y(c)}
          height={y(0) - y(c)}
        />
      ))}
      <line className="even" x1={30} x2={630} y1={y(mean)} y2={y(mean)} />
      <path
        className="swath"
        d={cells
          .map(
            (c, i) => `${i ? "L" : "M"}${x(i - 0.5).toFixed(1)} ${y(c).toFixed(1)}H${x(i + 0.5).toFixed(1)}`,
          )
          .join("")}
      />
      <line className="base" x1={30} x2={630} y1={y(0)} y2={y(0)} />
      {[-1, 0, 1].map((n) => {
        const at = x(track + n * pans);
        return at > 30 && at < 630 ? (
          <line key={n} className="track" x1={at} x2={at} y1={8} y2={y(0) + 8} />
        ) : null;
      })}
      <text x={x(track)} y={y(0) + 22} textAnchor="middle" className="now">
        track
      </text>
      <path className="middle" d={`M${x(track + middle / apart)} ${y(0) + 2}l-6 10h12z`} />
      <text x={30} y={y(0) + 22}>
        left, pan 1
      </text>
      <text x={630} y={y(0) + 22} textAnchor="end">
        {`pan ${count}, right`}
      </text>
      <path className="swath" d="M30 226h28" />
      <text x={64} y={230}>
        overlapped
      </text>
      <line className="even" x1={150} x2={178} y1={226} y2={226} />
      <text x={184} y={230}>
        its mean
      </text>
      <path className="middle" d="M256 220l-6 10h12z" />
      <text x={268} y={230}>
        middle of the throw
      </text>
    </Sheet>
  );
}

const mod = (n: number, by: number) => ((n % by) + by) % by;

/** Every spacing against its unevenness; pick one to walk by it. */
export function SpacingChart({ pattern, onPick }: { pattern: Pattern; onPick?: (pans: number) => void }) {
  const { spacings } = pattern;
  const most = Math.max(0.25, ...spacings.map((s) => s.cv)) * 1.05;
  const x = scaleLinear([spacings[0]!.pans, spacings.at(-1)!.pans], [52, 620]);
  const y = scaleLinear([0, most], [150, 10]);
  return (
    <Sheet viewBox="0 0 640 190" role="img" aria-label="Unevenness by the spacing of passes">
      <rect className="good" x={40} width={592} y={y(0.15)} height={y(0) - y(0.15)} />
      <line className="base" x1={40} x2={632} y1={y(0)} y2={y(0)} />
      <text x={44} y={y(0.15) - 5}>
        CV 15 %: good below
      </text>
      <path
        className="line"
        d={spacings.map((s, i) => `${i ? "L" : "M"}${x(s.pans).toFixed(1)} ${y(s.cv).toFixed(1)}`).join("")}
      />
      {spacings.map((s) => (
        <g key={s.pans}>
          <circle
            className={s.chosen ? "dot chosen" : "dot"}
            cx={x(s.pans)}
            cy={y(s.cv)}
            r={s.chosen ? 7 : 5}
            onClick={onPick && (() => onPick(s.pans))}
          >
            <title>{`${s.width}: CV ${s.cv_text}, ${s.verdict}`}</title>
          </circle>
          <text x={x(s.pans)} y={y(0) + 18} textAnchor="middle" className={s.chosen ? "now" : undefined}>
            {s.width.split(" ")[0]}
          </text>
        </g>
      ))}
      <text x={632} y={y(0) + 36} textAnchor="end">
        {`${spacings[0]!.width.split(" ")[1]} from track to track`}
      </text>
    </Sheet>
  );
}
