import { scaleLinear } from "d3-scale";
import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useSchools, useWatches } from "../../api/sky";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { dayOf, daysTo } from "../../parts/days";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { riskInk } from "../../parts/ramp";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { useAreaPick } from "./AreaPick";
import { skyParts } from "./skyParts";

const Tools = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 16px;
  margin-bottom: 18px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Frame = styled.div`
  overflow-x: auto;
`;
const Sheet = styled.svg`
  display: block;
  width: 100%;
  min-width: 700px;
  height: auto;
  text {
    font: 500 12px ${t.text};
    fill: ${t.soft};
  }
  .name {
    fill: ${t.ink};
    font-weight: 600;
  }
  .axis {
    stroke: ${t.hair};
  }
  .limit {
    stroke: ${t.stop};
    stroke-dasharray: 5 3;
  }
  .spray {
    stroke: ${t.accent};
    stroke-width: 3;
  }
`;

/** Two schools over a season that has been, on the account's own weather. */
export function SchoolsPage() {
  const account = useAccount();
  const { area, field, empty } = useAreaPick();
  const [disease, setDisease] = useState<string | null>(null);
  const now = new Date().getFullYear();
  const [year, setYear] = useState(now);
  const watches = useWatches(area?.id ?? null);
  const watched = (watches.data?.watches ?? []).filter((w) => w.on);
  const meant = watched.find((w) => w.disease === disease)?.disease ?? watched[0]?.disease ?? null;
  const found = useSchools(area?.id ?? null, meant, year);
  return (
    <Page
      sentence={
        found.data && !found.error
          ? found.data.sentence
          : "Spray by the calendar, or by the model’s threshold?"
      }
    >
      <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
      {empty ? (
        <Empty>It takes an area and a season of weather to compare the two.</Empty>
      ) : (
        <Tools>
          {field}
          <PickField
            label="Disease"
            name="disease"
            value={meant}
            options={watched.map((w) => ({ key: w.disease, text: w.name, note: `at ${w.threshold}` }))}
            onChange={setDisease}
          />
          <PickField
            label="Season"
            name="year"
            value={String(year)}
            options={[0, 1, 2, 3].map((n) => ({ key: `${now - n}`, text: `${now - n}` }))}
            onChange={(key) => setYear(Number(key))}
          />
        </Tools>
      )}
      <Fault error={found.error} />
      {found.data && !found.error && <Replay found={found.data} />}
    </Page>
  );
}

function Replay({ found }: { found: Schemas["SchoolsOut"] }) {
  return (
    <>
      <Section title={`${found.disease} on ${found.area}, ${found.season}`}>
        <Chart found={found} />
        <Hint style={{ marginTop: 8 }}>
          {found.risk_days} risk days in all
          {found.unknown_days > 0 && `; ${found.unknown_days} days without enough hours count for neither`}.
          Each stroke is a spray with {found.product}. {found.notes.join(" ")}
        </Hint>
      </Section>
      <Section title="Side by side">
        <Ledger>
          <thead>
            <tr>
              <th>School</th>
              <th className="figure">Sprays</th>
              <th className="figure">Cost</th>
              <th className="figure">Risk days unprotected</th>
            </tr>
          </thead>
          <tbody>
            <tr data-school="calendar">
              <td>
                By the calendar
                <div className="soft">Every label interval, April to November, whatever the weather.</div>
              </td>
              <td className="figure">{found.calendar.sprays}</td>
              <td className="figure">{found.calendar.cost}</td>
              <td className="figure">{found.calendar.unprotected}</td>
            </tr>
            <tr data-school="threshold">
              <td>
                By the threshold
                <div className="soft">
                  On a risk day without cover; cover shortens as the weather presses.
                </div>
              </td>
              <td className="figure">{found.threshold.sprays}</td>
              <td className="figure">{found.threshold.cost}</td>
              <td className="figure">{found.threshold.unprotected}</td>
            </tr>
          </tbody>
        </Ledger>
      </Section>
    </>
  );
}

function Chart({ found }: { found: Schemas["SchoolsOut"] }) {
  const count = found.shares.length;
  const x = scaleLinear([0, count], [96, 996]);
  const most = Math.max(1.4, ...found.shares.map((s) => Math.min(s ?? 0, 4)));
  const y = scaleLinear([0, most], [150, 24]).clamp(true);
  const first = Date.parse(found.first);
  const place = (on: string) => daysTo(found.first, on);
  const months = found.shares
    .map((_, i) => new Date(first + i * 86_400_000))
    .map((d, i) => ({ i, d }))
    .filter(({ d, i }) => i === 0 || d.getUTCDate() === 1);
  return (
    <Frame tabIndex={0} role="group" aria-label="The season, day by day">
      <Sheet viewBox="0 0 1000 234" role="img" aria-label={`${found.disease}: ${found.sentence}`}>
        {months.map(({ i, d }) => (
          <g key={i}>
            <path className="axis" d={`M${x(i)} 18V226`} />
            <text x={x(i) + 4} y={14}>
              {d.toLocaleString("en", { month: "short", timeZone: "UTC" })}
            </text>
          </g>
        ))}
        <text className="name" x={0} y={92}>
          Risk
        </text>
        {found.shares.map((s, i) =>
          s === null ? null : (
            <rect
              key={i}
              x={x(i)}
              width={Math.max(1, x(1) - x(0) - 0.4)}
              y={y(s)}
              height={150 - y(s)}
              style={{ fill: riskInk(s) }}
            />
          ),
        )}
        <path className="limit" d={`M96 ${y(1)}H996`} />
        <path className="axis" d="M96 150H996" />
        {(["calendar", "threshold"] as const).map((school, n) => (
          <g key={school}>
            <text className="name" x={0} y={182 + n * 34}>
              {school === "calendar" ? "By calendar" : "By threshold"}
            </text>
            <path className="axis" d={`M96 ${188 + n * 34}H996`} />
            {found[school].days.map((on) => (
              <path key={on} className="spray" d={`M${x(place(on)) + 1.5} ${164 + n * 34}v24`}>
                <title>{dayOf(on)}</title>
              </path>
            ))}
          </g>
        ))}
      </Sheet>
    </Frame>
  );
}
