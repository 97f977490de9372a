import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { t } from "../app/theme";
import { click } from "./beat";
import { Button } from "./Button";
import { Switch } from "./Switch";

const Track = styled.svg`
  display: block;
  width: 100%;
  max-width: 680px;
  height: auto;
  .ground {
    stroke: ${t.rule};
    stroke-width: 1;
  }
  .mark {
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  .walker {
    fill: ${t.accent};
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px 20px;
  align-items: center;
  margin-top: 10px;
`;
const Count = styled.span<{ $on: boolean }>`
  font-size: ${t.s34};
  font-weight: 600;
  min-width: 2ch;
  padding: 0 8px;
  border-bottom: 6px solid ${({ $on }) => ($on ? t.accent : "transparent")};
`;

interface Props {
  /** Seconds from mark to mark. */
  beat: number;
  /** How far apart the marks are, in words. */
  marks: string;
  /** The time of each stretch as it is walked, when the mark is pressed. */
  onSplit: (seconds: number) => void;
}

const SHOWN = 5;

/**
 * A beat to walk to: it is seen on the track and heard as a click, one at each mark. Pressing “At a mark” as each is
 * passed times the stretches.
 */
export function PaceBeat({ beat, marks, onSplit }: Props) {
  const [on, setOn] = useState(false);
  const [sound, setSound] = useState(true);
  const [now, setNow] = useState(0);
  const started = useRef(0);
  const last = useRef(0);
  const beats = useRef(0);
  const audio = useRef<AudioContext | null>(null);
  useEffect(() => {
    if (!on) return;
    let frame = 0;
    const step = () => {
      const gone = (performance.now() - started.current) / 1000;
      const passed = Math.floor(gone / beat);
      if (passed > beats.current) {
        beats.current = passed;
        if (sound && audio.current) click(audio.current, false);
      }
      setNow(gone);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [on, beat, sound]);
  useEffect(() => () => void audio.current?.close(), []);
  const turn = () => {
    if (on) {
      setOn(false);
      return;
    }
    started.current = last.current = performance.now();
    beats.current = 0;
    setNow(0);
    if (sound && typeof AudioContext !== "undefined") {
      audio.current ??= new AudioContext();
      click(audio.current, true);
    }
    setOn(true);
  };
  const split = () => {
    onSplit(Math.round((performance.now() - last.current) / 10) / 100);
    last.current = performance.now();
  };
  const place = on ? now / beat : 0;
  const first = Math.max(0, Math.floor(place) - 1);
  const x = (n: number) => 20 + ((n - first) * 560) / SHOWN;
  return (
    <div data-beat={on ? "on" : "off"}>
      <Track viewBox="0 0 600 84" aria-hidden>
        <line className="ground" x1="0" x2="600" y1="52" y2="52" />
        {Array.from({ length: SHOWN + 1 }, (_, i) => first + i).map((n) => (
          <g key={n}>
            <line className="mark" x1={x(n)} x2={x(n)} y1="40" y2="64" />
            <text x={x(n)} y="80" textAnchor="middle">
              {n === 0 ? "start" : n}
            </text>
          </g>
        ))}
        <circle className="walker" cx={x(place)} cy="28" r="9" />
      </Track>
      <Row>
        <Button look="main" onPress={turn}>
          {on ? "Stop the beat" : "Start the beat"}
        </Button>
        <Button isDisabled={!on} onPress={split}>
          At a mark
        </Button>
        <Count $on={on && place % 1 < 0.18} aria-hidden>
          {on ? Math.floor(place) : "–"}
        </Count>
        <span>{`a mark every ${beat.toFixed(2)} s, ${marks} apart`}</span>
        <Switch value={sound} onChange={setSound}>
          Sound
        </Switch>
      </Row>
    </div>
  );
}
