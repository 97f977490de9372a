import { scaleLinear } from "d3-scale";
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Root = styled.div<{ $small: boolean }>`
  position: relative;
  height: ${({ $small }) => ($small ? "26px" : "74px")};
  margin: ${({ $small }) => ($small ? "0" : "0 14px 6px")};
  touch-action: pan-y;
  user-select: none;
`;
const Base = styled.div`
  position: absolute;
  inset: auto 0 22px;
  height: 1px;
  background: ${t.rule};
`;
const Band = styled.div`
  position: absolute;
  bottom: 22px;
  height: 14px;
  background: ${t.wash};
  border: 1px solid ${t.accent};
  border-bottom: 0;
`;
const Hatch = styled.div<{ $binds: boolean }>`
  position: absolute;
  right: 0;
  bottom: 23px;
  height: 13px;
  background: repeating-linear-gradient(
    135deg,
    ${({ $binds }) => ($binds ? t.stop : t.caution)} 0 1.5px,
    transparent 1.5px 6px
  );
  opacity: 0.75;
`;
const Symbol = styled.div`
  position: absolute;
  right: 0;
  top: 8px;
  font-size: ${t.s13};
  color: ${t.soft};
`;
const Stop = styled.div`
  position: absolute;
  bottom: 20px;
  width: 3px;
  height: 24px;
  margin-left: -1px;
  background: ${t.stop};
`;
const Tick = styled.div`
  position: absolute;
  bottom: 0;
  width: 60px;
  margin-left: -30px;
  height: 22px;
  font-size: ${t.s13};
  text-align: center;
  color: ${t.soft};
  padding-top: 5px;
  &::before {
    content: "";
    position: absolute;
    left: 50%;
    top: 0;
    width: 1px;
    height: 6px;
    background: ${t.rule};
  }
`;
const Marker = styled.div<{ $tone: string; $small: boolean }>`
  position: absolute;
  bottom: ${({ $small }) => ($small ? "1px" : "22px")};
  width: 44px;
  height: 52px;
  margin-left: -22px;
  cursor: ew-resize;
  border-radius: 3px;
  &::before {
    content: "";
    position: absolute;
    left: 50%;
    bottom: 0;
    width: 2px;
    height: ${({ $small }) => ($small ? "16px" : "24px")};
    margin-left: -1px;
    background: ${({ $tone }) => $tone};
  }
  &::after {
    content: "";
    position: absolute;
    left: 50%;
    bottom: ${({ $small }) => ($small ? "14px" : "22px")};
    margin-left: -7px;
    border: 7px solid transparent;
    border-top: 9px solid ${({ $tone }) => $tone};
    border-bottom: 0;
  }
`;

interface Props {
  rule: Schemas["RuleOut"];
  label: string;
  text: string;
  small?: boolean;
  onChange?: (value: number) => void;
}

/**
 * A rate on its label's range, to true proportion: the range is a band, the rate a marker, the most allowed a stop,
 * and what lies beyond is hatched. Drag it, or step it with the arrow keys.
 */
export function RateRule({ rule, label, text, small = false, onChange }: Props) {
  const track = useRef<HTMLDivElement>(null);
  const x = scaleLinear([0, rule.scale], [0, 100]).clamp(true);
  const at = (v: number) => `${x(v)}%`;
  const tidy = (v: number) => Number(Math.max(rule.step, Math.min(rule.scale, v)).toPrecision(6));

  const drag = (e: PointerEvent) => {
    if (!onChange || !track.current || (e.type === "pointermove" && e.buttons !== 1)) return;
    const frame = track.current.getBoundingClientRect();
    const raw = ((e.clientX - frame.left) / frame.width) * rule.scale;
    onChange(tidy(Math.round(raw / rule.step) * rule.step));
  };
  const key = (e: KeyboardEvent) => {
    const by: Record<string, number> = {
      ArrowRight: rule.step,
      ArrowUp: rule.step,
      ArrowLeft: -rule.step,
      ArrowDown: -rule.step,
      PageUp: 5 * rule.step,
      PageDown: -5 * rule.step,
    };
    const to = e.key === "Home" ? rule.low || rule.step : e.key === "End" ? rule.high : undefined;
    if (to === undefined && by[e.key] === undefined) return;
    e.preventDefault();
    onChange?.(tidy(to ?? rule.value + by[e.key]!));
  };

  const over = rule.value > rule.high * (1 + 1e-9);
  return (
    <Root
      ref={track}
      $small={small}
      onPointerDown={(e) => {
        if (onChange) e.currentTarget.setPointerCapture(e.pointerId);
        drag(e);
      }}
      onPointerMove={drag}
      {...(onChange ? {} : { role: "img", "aria-label": `${label}: ${text}` })}
    >
      <Base style={small ? { bottom: 0 } : undefined} />
      <Band
        style={{
          left: at(rule.low),
          width: `${x(rule.high) - x(rule.low)}%`,
          ...(small && { bottom: 0, height: 9 }),
        }}
      />
      <Hatch $binds={rule.binds} style={{ left: at(rule.high), ...(small && { bottom: 1, height: 8 }) }} />
      {rule.binds && (
        <Stop style={{ left: at(rule.high), ...(small && { bottom: 0, height: 14, width: 2 }) }} />
      )}
      {!small && <Symbol>{rule.symbol}</Symbol>}
      {!small &&
        x.ticks(6).map((v) => (
          <Tick key={v} style={{ left: at(v) }}>
            {v}
          </Tick>
        ))}
      <Marker
        $tone={!over ? t.ink : rule.binds ? t.stop : t.caution}
        $small={small}
        style={{ left: at(rule.value), cursor: onChange ? undefined : "default" }}
        onKeyDown={onChange && key}
        {...(onChange && {
          role: "slider",
          tabIndex: 0,
          "aria-label": label,
          "aria-valuemin": 0,
          "aria-valuemax": rule.scale,
          "aria-valuenow": rule.value,
          "aria-valuetext": text,
        })}
      />
    </Root>
  );
}
