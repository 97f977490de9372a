import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { closed, frame } from "./ground";
import { GroundSheet } from "./GroundSheet";
import { css, table } from "./ramp";
import { ScaleBar } from "./ScaleBar";

type Landed = Schemas["LandedOut"];

const Box = styled.div`
  position: relative;
  canvas {
    position: absolute;
    image-rendering: pixelated;
  }
  svg {
    position: relative;
  }
`;

interface Props {
  landed: Landed;
  plan: Schemas["PassesOut"];
  us: boolean;
  /** How wide the drawing is, in its own units. */
  width?: number;
}

/** What each piece of ground gets of the intended rate: the darker, the more. What falls beside the area is shown too. */
export function LandingMap({ landed, plan, us, width = 720 }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { columns, rows, left, bottom, block } = landed;
  const box = { left, bottom, right: left + columns * block, top: bottom + rows * block };
  const whole = {
    left: Math.min(box.left, plan.left),
    bottom: Math.min(box.bottom, plan.bottom),
    right: Math.max(box.right, plan.right),
    top: Math.max(box.top, plan.top),
  };
  const f = frame(whole, width, width * 0.66, 24);
  useEffect(() => {
    const sheet = canvas.current?.getContext("2d");
    if (!sheet) return;
    const bytes = Uint8Array.from(atob(landed.cells), (c) => c.charCodeAt(0));
    const image = sheet.createImageData(columns, rows);
    bytes.forEach((b, i) => {
      const [red, green, blue] = table[b]!;
      image.data.set([red, green, blue, Math.min(255, b * 17)], i * 4);
    });
    sheet.putImageData(image, 0, 0);
  }, [landed.cells, columns, rows]);
  const part = (v: number, of: number) => `${(v / of) * 100}%`;
  return (
    <Box role="img" aria-label={`Landing map: ${landed.sentence}`} data-map="landing">
      <canvas
        ref={canvas}
        width={columns}
        height={rows}
        style={{
          left: part(f.x(box.left), f.width),
          top: part(f.y(box.top), f.height),
          width: part(f.x(box.right) - f.x(box.left), f.width),
          height: part(f.y(box.bottom) - f.y(box.top), f.height),
        }}
      />
      <GroundSheet viewBox={`0 0 ${f.width} ${f.height}`} aria-hidden>
        {plan.outlines.map((o, i) => (
          <g key={i}>
            <path className="halo" d={closed(f, o.ring)} />
            <path className="bare" d={closed(f, o.ring)} />
          </g>
        ))}
        {plan.zones
          .filter((z) => !z.buffer)
          .map((z, i) => (
            <path key={i} className="bare" d={closed(f, z.ring)} />
          ))}
        <ScaleBar frame={f} span={whole.right - whole.left} us={us} north={plan.north} />
      </GroundSheet>
    </Box>
  );
}

const Bars = styled.svg`
  display: block;
  width: 100%;
  max-width: 560px;
  height: auto;
  .bar {
    stroke: ${t.ink};
    stroke-width: 0.6;
  }
  .axis {
    stroke: ${t.rule};
  }
  .mark {
    stroke: ${t.ink};
    stroke-width: 1.6;
  }
  .label {
    stroke: ${t.stop};
    stroke-width: 1.6;
    stroke-dasharray: 4 3;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  ${t.phone} {
    text {
      font-size: 17px;
    }
  }
`;

/** How much of the area gets which share of the rate; the key to the map's shades at the same time. */
export function LandingBars({ landed }: { landed: Landed }) {
  const most = Math.max(...landed.histogram, 0.05);
  const wide = 520 / landed.histogram.length;
  const x = (share: number) => 20 + Math.min(share, 2) * 260;
  return (
    <Bars viewBox="0 0 560 178" role="img" aria-label="Share of the area by share of the rate">
      {landed.histogram.map((h, i) => (
        <rect
          key={i}
          className="bar"
          x={20 + i * wide}
          width={wide - 1}
          y={140 - (h / most) * 118}
          height={(h / most) * 118}
          fill={css((i + 0.5) / 10)}
        >
          <title>{`${i * 10} to ${i * 10 + 10} % of the rate: ${(h * 100).toFixed(1)} % of the area`}</title>
        </rect>
      ))}
      {landed.histogram.map((_, i) => (
        <rect key={`key${i}`} x={20 + i * wide} width={wide} y={142} height={9} fill={css((i + 0.5) / 10)} />
      ))}
      <line className="axis" x1={20} x2={540} y1={141} y2={141} />
      <line className="mark" x1={x(1)} x2={x(1)} y1={10} y2={152} />
      {[landed.label_low, landed.label_high].map(
        (end) =>
          end !== null && <line key={end} className="label" x1={x(end)} x2={x(end)} y1={16} y2={152} />,
      )}
      {[0, 0.5, 1, 1.5].map((s) => (
        <text key={s} x={x(s)} y={168} textAnchor="middle">
          {`${s * 100} %`}
        </text>
      ))}
      <text x={540} y={168} textAnchor="end">
        200 % and more
      </text>
    </Bars>
  );
}
