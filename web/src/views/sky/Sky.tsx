import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useSky, useStrip } from "../../api/sky";
import { useAccount, useMay } from "../../app/session";
import { useSitePick } from "../../app/site";
import { t } from "../../app/theme";
import { ButtonLink } from "../../parts/Button";
import { dayOf } from "../../parts/days";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { FreshLine } from "../../parts/FreshLine";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { RiskBar } from "../../parts/RiskBar";
import { quietOf, SeasonStrip } from "../../parts/SeasonStrip";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { useAreaPick } from "./AreaPick";
import { DayUnfolded } from "./DayUnfolded";
import { skyParts } from "./skyParts";

const Tools = styled.div`
  display: grid;
  grid-template-columns: minmax(200px, 320px) 160px;
  gap: 16px;
  margin-bottom: 18px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Tops = styled(Ledger)`
  td {
    vertical-align: top;
  }
`;
const Key = styled.p`
  font-size: ${t.s13};
  color: ${t.soft};
  margin-top: 8px;
`;

/** The sky: what is near its threshold, and an area day by day. */
export function Sky() {
  const account = useAccount();
  const place = useSitePick();
  const sky = useSky(place.site.id);
  const may = useMay("manager");
  const chosen = useAreaPick(place.site.id);
  return (
    <Waiting of={sky}>
      {(data) => (
        <Page sentence={data.sentence}>
          <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
          {place.field}
          {data.fresh.state === "none" ? (
            <Empty
              act={
                may && (
                  <ButtonLink look="main" to={`/a/${account.slug}/sky/station?site=${place.site.id}`}>
                    Set up a station
                  </ButtonLink>
                )
              }
            >
              {data.fresh.sentence} From hours of air, humidity, rain and wind come wet leaves, disease risk,
              degree days and the hours fit to work.
            </Empty>
          ) : (
            <>
              <FreshLine fresh={data.fresh} />
              <Asides sky={data} />
              {data.risks.length > 0 && <Risks risks={data.risks} quiet={data.quiet} onPick={chosen.pick} />}
              {chosen.area && <OfArea area={chosen.area} field={chosen.field} />}
            </>
          )}
        </Page>
      )}
    </Waiting>
  );
}

function Asides({ sky }: { sky: Schemas["SkyOut"] }) {
  const account = useAccount();
  const parts = [
    sky.gaps && `${sky.gaps} ${sky.gaps === 1 ? "gap" : "gaps"} in the last months`,
    sky.filled && `${sky.filled} hours of short gaps read between their neighbours`,
    sky.aside && `${sky.aside} values set aside`,
  ].filter(Boolean);
  if (!parts.length) return null;
  return (
    <Hint style={{ marginBottom: 14 }}>
      {parts.join(", ")}: <Link to={`/a/${account.slug}/sky/station`}>see them</Link>.
    </Hint>
  );
}

interface RisksProps {
  risks: Schemas["RiskOut"][];
  quiet: number;
  onPick: (area: number) => void;
}

/** What is near its threshold, a disease a line with the areas it is on; the gravest first. */
function Risks({ risks, quiet, onPick }: RisksProps) {
  const diseases = [...new Set(risks.map((r) => r.disease))].map((d) => risks.filter((r) => r.disease === d));
  return (
    <Section title="Near a threshold, on all areas">
      <Tops>
        <thead>
          <tr>
            <th>Disease</th>
            <th className="wide">Today, and the week’s worst</th>
            <th>Where, and what covers it</th>
          </tr>
        </thead>
        <tbody>
          {diseases.map((group) => {
            const [first] = group;
            if (!first) return null;
            const bare = group.filter((r) => r.covered_until === null);
            const covered = group.filter((r) => r.covered_until !== null);
            return (
              <tr key={first.disease} data-risk={first.disease}>
                <td>
                  {first.name}
                  <div className="soft">{first.model}</div>
                </td>
                <td className="wide">
                  <RiskBar
                    share={first.share}
                    peak={first.peak_share}
                    text={`Today ${first.now_text}, worst ${first.peak_text} ${first.peak_day}`}
                  />
                  <div className="soft">
                    {first.now_text}
                    {first.peak_day !== "today" &&
                      first.peak_share !== null &&
                      `; ${first.peak_text} on ${first.peak_day}`}
                    {first.threshold && `, threshold ${first.threshold}`}
                  </div>
                </td>
                <td>
                  {bare.length > 0 && (
                    <div>
                      Nothing covers <Names of={bare} onPick={onPick} />
                    </div>
                  )}
                  {covered.length > 0 && (
                    <div className="soft">
                      Covered: <Names of={covered} onPick={onPick} until />
                    </div>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Tops>
      {quiet > 0 && (
        <Key>
          {quiet} more {quiet === 1 ? "is" : "are"} watched and quiet, or outside the range of the model.
        </Key>
      )}
    </Section>
  );
}

/** Areas by their names; pressing one shows it day by day. */
function Names({
  of,
  onPick,
  until,
}: {
  of: Schemas["RiskOut"][];
  onPick: (area: number) => void;
  until?: boolean;
}) {
  return of.map((r, i) => (
    <span key={r.area_id}>
      {i > 0 && ", "}
      <Link
        to={`?area=${r.area_id}`}
        onClick={(e) => {
          e.preventDefault();
          onPick(r.area_id);
        }}
      >
        {r.area}
      </Link>
      {until && r.covered_until && ` to ${dayOf(r.covered_until)}`}
    </span>
  ));
}

const weekOptions = [
  { key: "2", text: "2 weeks" },
  { key: "5", text: "5 weeks" },
  { key: "10", text: "10 weeks" },
  { key: "17", text: "17 weeks" },
];

function OfArea({ area, field }: { area: Schemas["AreaOut"]; field: React.ReactNode }) {
  const [weeks, setWeeks] = useState(5);
  const [on, setOn] = useState<string | null>(null);
  const strip = useStrip(area.id, weeks);
  return (
    <Section title="Day by day">
      <Tools>
        {field}
        <PickField
          label="Back"
          name="weeks"
          value={String(weeks)}
          options={weekOptions}
          onChange={(key) => setWeeks(Number(key))}
        />
      </Tools>
      <Waiting of={strip}>
        {(data) => (
          <>
            <SeasonStrip
              strip={data}
              picked={on === null ? null : data.days.findIndex((d) => d.on === on)}
              onPick={(i) => setOn(data.days[i]?.on ?? null)}
            />
            <Key>
              The dashed line is the threshold; hatching means no value, for the weather is outside the
              model’s range or too few hours are known. ▲ seen by a scout, ○ looked for and not seen. A bar is
              an application’s cover; the dots after it are what the label allows at the longest.
            </Key>
            <Quiet strip={data} />
            {on !== null ? (
              <DayUnfolded area={area.id} on={on} onFold={() => setOn(null)} />
            ) : (
              <Key>Pick a day to unfold it into its hours and the sum of every model.</Key>
            )}
            <Scores risks={data.risks} />
          </>
        )}
      </Waiting>
    </Section>
  );
}

function Quiet({ strip }: { strip: Schemas["StripOut"] }) {
  const quiet = quietOf(strip);
  if (!quiet.length) return null;
  const far = quiet
    .filter((r) => r.states.every((s) => s === "outside" || s === "too_few"))
    .map((r) => r.name);
  const low = quiet.filter((r) => !far.includes(r.name)).map((r) => r.name);
  return (
    <Key>
      {low.length > 0 && `Low all along: ${low.join(", ").toLowerCase()}. `}
      {far.length > 0 && `Outside the range of the model all along: ${far.join(", ").toLowerCase()}.`}
    </Key>
  );
}

/** How each model has done on this ground, by what scouts found. */
function Scores({ risks }: { risks: Schemas["StripRiskOut"][] }) {
  const told = risks.filter((r) => r.score);
  if (!told.length) return null;
  return (
    <Section title="How the models do on this ground">
      {told.map((r) => (
        <p key={r.disease}>
          {r.name}, {r.model_name}: {r.score}
        </p>
      ))}
    </Section>
  );
}
