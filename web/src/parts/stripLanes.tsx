import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { dayOf, daysTo } from "./days";
import { riskInk } from "./ramp";

/** The lanes of a season strip, each drawn from its top down; styled by the strip's sheet. */

type Strip = Schemas["StripOut"];
type Day = Schemas["DayOfWeatherOut"];

/** Where the days begin, beside the names, and where they end. */
export const LEFT = 128;
export const RIGHT = 1000;

/** A name or a note that fits its place. */
export const short = (text: string, most: number) =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

/** How much rain the lane is drawn for: that of the wettest day, or of a good shower. */
export const mostRain = (strip: Strip) =>
  Math.max(...strip.days.map((d) => d.rain ?? 0), strip.units.rain === "in" ? 0.5 : 12);

interface Lane {
  days: Day[];
  x: (place: number) => number;
  step: number;
  top: number;
}

function airScale(days: Day[], top: number) {
  const known = days.filter((d) => d.high !== null && d.low !== null);
  const ends = [Math.min(...known.map((d) => d.low!)), Math.max(...known.map((d) => d.high!))];
  return scaleLinear(known.length ? ends : [0, 1], [top + 60, top + 4]).nice(3);
}

export function AirScale({ days, top }: { days: Day[]; top: number }) {
  const y = airScale(days, top);
  return y.ticks(3).map((v) => (
    <text key={v} x={LEFT - 6} y={y(v) + 4} textAnchor="end">
      {v}
    </text>
  ));
}

export function Air({ days, x, step, top }: Lane) {
  const y = airScale(days, top);
  return (
    <>
      {y.ticks(3).map((v) => (
        <path key={v} className="axis" d={`M${LEFT} ${y(v)}H${RIGHT}`} />
      ))}
      {days.map((d, i) =>
        d.high === null || d.low === null ? (
          <rect key={d.on} className="none" x={x(i)} y={top + 4} width={step} height={56} />
        ) : (
          <rect
            key={d.on}
            className="span"
            x={x(i) + step * 0.2}
            width={step * 0.6}
            y={y(d.high)}
            height={Math.max(1.5, y(d.low) - y(d.high))}
          />
        ),
      )}
    </>
  );
}

export function Wet({ days, x, step, top, most }: Lane & { most: number }) {
  const rain = scaleLinear([0, most], [0, 44]);
  const wet = scaleLinear([0, 24], [0, 44]);
  const floor = top + 48;
  return (
    <>
      <path className="axis" d={`M${LEFT} ${floor}H${RIGHT}`} />
      {days.map((d, i) => (
        <g key={d.on}>
          {d.wet === null ? (
            <rect className="none" x={x(i)} y={top + 4} width={step} height={44} />
          ) : (
            <rect
              className="wet"
              x={x(i) + step * 0.1}
              width={step * 0.8}
              y={floor - wet(d.wet)}
              height={wet(d.wet)}
            />
          )}
          {(d.rain ?? 0) > 0 && (
            <rect
              className="rain"
              x={x(i) + step * 0.33}
              width={step * 0.34}
              y={floor - rain(d.rain!)}
              height={rain(d.rain!)}
            />
          )}
        </g>
      ))}
    </>
  );
}

interface RiskProps extends Omit<Lane, "days"> {
  risk: Schemas["StripRiskOut"];
  strip: Strip;
  first: string;
}

export function Risk({ risk, strip, first, x, step, top }: RiskProps) {
  const most = Math.max(1.4, ...risk.shares.map((s) => Math.min(s ?? 0, 3)));
  const y = scaleLinear([0, most], [top + 42, top + 4]).clamp(true);
  const here = strip.scouts.filter((s) => s.what === risk.disease);
  return (
    <g data-risk={risk.disease}>
      {risk.shares.map((s, i) =>
        s === null ? (
          <rect key={i} className="none" x={x(i)} y={top + 4} width={step} height={38}>
            <title>{risk.states[i] === "outside" ? "outside the model’s range" : "not enough hours"}</title>
          </rect>
        ) : (
          <rect
            key={i}
            x={x(i) + 0.5}
            width={Math.max(1, step - 1)}
            y={y(s)}
            height={top + 42 - y(s)}
            style={{ fill: riskInk(s) }}
            stroke={t.rule}
            strokeWidth={0.3}
          />
        ),
      )}
      <path className="axis" d={`M${LEFT} ${top + 42}H${RIGHT}`} />
      <path className="limit" d={`M${LEFT} ${y(1)}H${RIGHT}`} />
      {here.map((s) => {
        const at = x(daysTo(first, s.on)) + step / 2;
        return s.seen ? (
          <path key={s.id} className="seen" d={`M${at} ${top + 2}l5.5 9h-11z`}>
            <title>{`Seen ${dayOf(s.on)}${s.severity && `, on ${s.severity}`}${s.where && `, ${s.where}`}`}</title>
          </path>
        ) : (
          <circle key={s.id} className="clean" cx={at} cy={top + 7} r={4}>
            <title>{`Looked for and not seen, ${dayOf(s.on)}`}</title>
          </circle>
        );
      })}
    </g>
  );
}

interface CoverProps {
  cover: Schemas["CoverOut"];
  first: string;
  count: number;
  x: (place: number) => number;
  top: number;
}

export function Cover({ cover, first, count, x, top }: CoverProps) {
  const clip = (n: number) => Math.max(0, Math.min(count, n));
  const a = clip(daysTo(first, cover.on));
  const b = clip(daysTo(first, cover.until) + 1);
  const most = clip(daysTo(first, cover.most) + 1);
  const wide = x(b) - x(a);
  return (
    <g data-cover={cover.product}>
      <path className="axis" d={`M${LEFT} ${top + 11}H${RIGHT}`} />
      {most > b && <path className="most" d={`M${x(b)} ${top + 11}H${x(most)}`} />}
      <rect className="cover" x={x(a)} y={top + 3} width={Math.max(2, wide)} height={16}>
        <title>{`${cover.sentence} Against ${cover.against.join(", ")}.`}</title>
      </rect>
      {wide > 90 && (
        <text className="on-cover" x={x(a) + 6} y={top + 15}>
          {short(`${cover.codes} · ${cover.against.join(", ").toLowerCase()}`, Math.floor(wide / 6.2))}
        </text>
      )}
    </g>
  );
}

/** Windows that somebody picked; a missed one is crossed out. */
export function Jobs({ strip, first, x, step, top }: Omit<Lane, "days"> & { strip: Strip; first: string }) {
  return (
    <g>
      <path className="axis" d={`M${LEFT} ${top + 11}H${RIGHT}`} />
      {strip.jobs
        .map((j) => ({ ...j, at: x(daysTo(first, j.on)) + step / 2 }))
        .filter((j) => j.at >= LEFT && j.at <= RIGHT)
        .map((j) => (
          <g key={`${j.on} ${j.text}`} data-job={j.state}>
            <path className="clean" d={`M${j.at} ${top + 4}l7 7l-7 7l-7-7z`}>
              <title>{`${j.text}, ${j.state}`}</title>
            </path>
            {j.state === "missed" && (
              <path className="limit" d={`M${j.at - 8} ${top + 3}l16 16m0-16l-16 16`} />
            )}
          </g>
        ))}
    </g>
  );
}

interface ClockProps extends Omit<Lane, "days"> {
  clock: Schemas["ClockOut"];
  first: string;
  count: number;
}

export function Clock({ clock, first, count, x, step, top }: ClockProps) {
  const begin = daysTo(first, clock.since);
  const y = scaleLinear([0, 2], [top + 42, top + 4]).clamp(true);
  const points = clock.track
    .map((share, i) => ({ share, place: begin + i }))
    .filter((p) => p.place >= 0 && p.place < count);
  return (
    <g data-clock={clock.product}>
      <path className="axis" d={`M${LEFT} ${top + 42}H${RIGHT}`} />
      <path className="limit" d={`M${LEFT} ${y(1)}H${RIGHT}`} />
      <path
        className="clock"
        d={points
          .map((p, i) => `${i ? "L" : "M"}${(x(p.place) + step / 2).toFixed(1)} ${y(p.share).toFixed(1)}`)
          .join("")}
      >
        <title>{clock.sentence}</title>
      </path>
    </g>
  );
}
