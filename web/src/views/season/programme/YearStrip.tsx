import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";
import type { Programme, Turn } from "../../../api/programme";
import { t } from "../../../app/theme";
import { useNarrow } from "../../../app/narrow";
import { keyOf, marks, open, tones } from "./stands";

type AreaYear = Programme["areas"][number];

const MONTHS = ["J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D"];
const DAY = 86_400_000;

const ROW = 19;
const Root = styled.div<{ $rows: number }>`
  position: relative;
  height: ${({ $rows }) => 27 + $rows * ROW}px;
  margin: 4px 12px 0;
  touch-action: pan-y;
`;
const Sheet = styled.svg`
  position: absolute;
  inset: 0 0 14px;
  width: 100%;
  height: calc(100% - 14px);
  overflow: visible;
  .growth {
    fill: ${t.turf};
  }
  .base,
  .month {
    stroke: ${t.rule};
    vector-effect: non-scaling-stroke;
  }
  .today {
    stroke: ${t.accent};
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
`;
const Month = styled.span`
  position: absolute;
  bottom: -2px;
  font-size: ${t.s13};
  color: ${t.soft};
  transform: translateX(-50%);
`;
const Mark = styled.button<{ $tone: string; $row: number }>`
  position: absolute;
  top: ${({ $row }) => $row * ROW}px;
  width: 24px;
  height: 24px;
  margin-left: -12px;
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: transparent;
  color: ${({ $tone }) => $tone};
  font-size: 17px;
  line-height: 24px;
  cursor: pointer;
  &[aria-pressed="true"] {
    background: ${t.wash};
    outline: 2px solid ${t.accent};
  }
  &[data-against] {
    text-decoration: underline wavy ${t.stop};
  }
`;
const Span = styled.span<{ $tone: string; $row: number }>`
  position: absolute;
  top: ${({ $row }) => 11 + $row * ROW}px;
  height: 2px;
  background: ${({ $tone }) => $tone};
  opacity: 0.6;
`;

/** Rows of marks, so that none lies on another: each in the first row whose last mark is `apart` of the year away. */
function rowed(turns: Turn[], apart: number): { turn: Turn; row: number }[] {
  const ends: number[] = [];
  return turns
    .filter((turn) => turn.position !== null && turn.position >= 0 && turn.position <= 1)
    .map((turn) => {
      const free = ends.findIndex((end) => turn.position! - end >= apart);
      const row = free < 0 ? ends.length : free;
      ends[row] = turn.position!;
      return { turn, row };
    });
}

interface Props {
  area: AreaYear;
  year: number;
  today: number | null;
  picked: string | null;
  day: string;
  /** A turn is picked, or the picked one taken to another day. */
  onPick: (turn: Turn, day?: string) => void;
}

const iso = (year: number, share: number) => {
  const first = Date.UTC(year, 0, 1);
  const length = Date.UTC(year + 1, 0, 1) - first;
  const at = Math.max(0, Math.min(0.999, share));
  return new Date(first + Math.floor((at * length) / DAY) * DAY).toISOString().slice(0, 10);
};
const shareOf = (year: number, day: string) => {
  const first = Date.UTC(year, 0, 1);
  return (Date.parse(day) - first) / (Date.UTC(year + 1, 0, 1) - first);
};
const later = (day: string, days: number) =>
  new Date(Date.parse(day) + days * DAY).toISOString().slice(0, 10);

/** An area's year on one strip: its turns, the growth of its grass, today. A mark is dragged or stepped to another day. */
export function YearStrip({ area, year, today, picked, day, onPick }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const rows = rowed(area.turns, useNarrow() ? 0.075 : 0.034);
  const count = Math.max(3, ...rows.map((x) => x.row + 1));
  const from = useRef<{ turn: Turn; x: number; moved: boolean } | null>(null);
  const drag = (e: PointerEvent) => {
    const held = from.current;
    if (!held || !open(held.turn) || !root.current) return;
    if (!held.moved && Math.abs(e.clientX - held.x) < 4) return;
    held.moved = true;
    const box = root.current.getBoundingClientRect();
    onPick(held.turn, iso(year, (e.clientX - box.left) / box.width));
  };
  const press = (turn: Turn) => (e: PointerEvent<HTMLButtonElement>) => {
    from.current = { turn, x: e.clientX, moved: false };
    e.currentTarget.setPointerCapture(e.pointerId);
  };
  const step = (turn: Turn, at: string) => (e: KeyboardEvent) => {
    const days = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[e.key];
    if (!days || !open(turn) || !at) return;
    e.preventDefault();
    onPick(turn, later(at, days));
  };
  return (
    <Root ref={root} $rows={count} role="group" aria-label={`${year} on ${area.area}`}>
      <Sheet viewBox="0 0 1200 70" preserveAspectRatio="none" aria-hidden>
        {area.growth.map((share, i) => (
          <rect key={i} className="growth" x={i * 100} width={100} y={64 - share * 60} height={share * 60} />
        ))}
        <line className="base" x1={0} x2={1200} y1={64} y2={64} />
        {MONTHS.map((_, i) => (
          <line key={i} className="month" x1={i * 100} x2={i * 100} y1={64} y2={70} />
        ))}
        {today !== null && <line className="today" x1={today * 1200} x2={today * 1200} y1={0} y2={70} />}
      </Sheet>
      {MONTHS.map((m, i) => (
        <Month key={i} style={{ left: `${((i + 0.5) / 12) * 100}%` }} aria-hidden>
          {m}
        </Month>
      ))}
      {rows.map(({ turn, row }) => {
        const key = keyOf(turn);
        const here = picked === key && day ? day : (turn.begin ?? "");
        const at = picked === key && day ? shareOf(year, day) : turn.position!;
        return (
          <span key={key}>
            {turn.long > 0 && (
              <Span
                $tone={tones[turn.stand]}
                $row={row}
                style={{ left: `${at * 100}%`, width: `${turn.long * 100}%` }}
                aria-hidden
              />
            )}
            <Mark
              type="button"
              $tone={tones[turn.stand]}
              $row={row}
              style={{ left: `${at * 100}%` }}
              aria-pressed={picked === key}
              aria-label={`${turn.name}, ${turn.stand_text}, ${turn.day}${turn.refused.length ? ", against a rule" : ""}`}
              data-turn={key}
              data-against={turn.refused.length ? "" : undefined}
              onPointerDown={press(turn)}
              onPointerMove={drag}
              onPointerUp={() => (from.current = null)}
              onClick={() => picked !== key && onPick(turn)}
              onKeyDown={step(turn, here)}
            >
              {marks[turn.stand]}
            </Mark>
          </span>
        );
      })}
    </Root>
  );
}
