import { useState, type KeyboardEvent } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

type Hour = Schemas["FitHourOut"];

const Frame = styled.div`
  overflow-x: auto;
`;
const Sheet = styled.svg`
  display: block;
  width: 100%;
  min-width: 620px;
  height: auto;
  outline-offset: 3px;
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  .cell {
    stroke: ${t.hair};
    stroke-width: 1;
    cursor: pointer;
  }
  .go {
    fill: ${t.accent};
  }
  .mind {
    fill: url(#fit-mind);
  }
  .unknown {
    fill: url(#fit-unknown);
  }
  .no {
    fill: ${t.sheet};
  }
  .cross {
    stroke: ${t.rule};
    stroke-width: 1;
    pointer-events: none;
  }
  .picked {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 2.5;
    pointer-events: none;
  }
`;
const Said = styled.div`
  min-height: 84px;
  margin-top: 10px;
  padding: 8px 12px;
  border-left: 3px solid ${t.rule};
  h3 {
    margin-bottom: 4px;
  }
  li {
    padding: 1px 0;
  }
`;
const Key = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-top: 6px;
  font-size: ${t.s13};
  color: ${t.soft};
  span {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
  svg {
    width: 16px;
    height: 16px;
  }
`;

const LEFT = 62;
const SIZE = 26;
const words: Record<Hour["fit"], string> = {
  go: "Go",
  mind: "Possible; mind",
  unknown: "Not known",
  no: "No",
};

/** The hours to come, a row for each day: fit, to be minded, not known, or not fit; one of them with its reasons. */
export function HourGrid({ hours, label }: { hours: Hour[]; label: string }) {
  const [picked, setPicked] = useState(0);
  const days = [...new Set(hours.map((h) => h.day))];
  const at = hours[Math.min(picked, hours.length - 1)];
  const move = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -24, ArrowDown: 24 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    setPicked((p) => Math.max(0, Math.min(hours.length - 1, p + by)));
  };
  const x = (hour: number) => LEFT + hour * SIZE;
  const y = (day: string) => 22 + days.indexOf(day) * SIZE;
  return (
    <>
      <Frame>
        <Sheet
          viewBox={`0 0 ${x(24) + 2} ${y(days.at(-1) ?? "") + SIZE + 2}`}
          tabIndex={0}
          role="group"
          aria-label={`${label}: arrow keys pick an hour`}
          onKeyDown={move}
        >
          <Patterns />
          {[0, 3, 6, 9, 12, 15, 18, 21].map((h) => (
            <text key={h} x={x(h)} y={14}>
              {String(h).padStart(2, "0")}
            </text>
          ))}
          {days.map((d) => (
            <text key={d} x={0} y={y(d) + 17}>
              {d}
            </text>
          ))}
          {hours.map((h, i) => (
            <g key={h.at}>
              <rect
                className={`cell ${h.fit}`}
                data-fit={h.fit}
                x={x(h.hour)}
                y={y(h.day)}
                width={SIZE}
                height={SIZE}
                onClick={() => setPicked(i)}
              >
                <title>{`${h.day}, ${h.hour}:00: ${words[h.fit]}. ${h.reasons.map((r) => r.text).join(" ")}`}</title>
              </rect>
              {h.fit === "no" && (
                <path className="cross" d={`M${x(h.hour) + 10} ${y(h.day) + 10}l6 6m0-6l-6 6`} />
              )}
            </g>
          ))}
          {at && <rect className="picked" x={x(at.hour)} y={y(at.day)} width={SIZE} height={SIZE} />}
        </Sheet>
      </Frame>
      <Key aria-hidden>
        {(["go", "mind", "unknown", "no"] as const).map((fit) => (
          <span key={fit}>
            <Sheet as="svg" viewBox="0 0 18 18" style={{ minWidth: 0 }}>
              <rect className={`cell ${fit}`} x={1} y={1} width={16} height={16} />
              {fit === "no" && <path className="cross" d="M6 6l6 6m0-6l-6 6" />}
            </Sheet>
            {words[fit]}
          </span>
        ))}
      </Key>
      {at && (
        <Said aria-live="polite">
          <h3>
            {at.day}, {String(at.hour).padStart(2, "0")}:00 · {words[at.fit]} · {at.air}, wind {at.wind}, rain{" "}
            {at.rain}
          </h3>
          <ul>
            {at.reasons.length === 0 && <li>Nothing stands against it.</li>}
            {at.reasons.map((r) => (
              <li key={r.key}>{r.text}</li>
            ))}
          </ul>
        </Said>
      )}
    </>
  );
}

function Patterns() {
  return (
    <defs>
      <pattern id="fit-mind" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" fill={t.wash} />
        <path d="M1.5 0V6" stroke={t.accent} strokeWidth="2.4" />
      </pattern>
      <pattern id="fit-unknown" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill={t.sheet} />
        <circle cx="3" cy="3" r="1.1" fill={t.rule} />
      </pattern>
    </defs>
  );
}
