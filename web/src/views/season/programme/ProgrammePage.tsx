import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { useCopyYear, useProgramme, type Programme, type Turn } from "../../../api/programme";
import { useAsked } from "../../../app/asked";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { say } from "../../../app/toast";
import { Button, ButtonLink } from "../../../parts/Button";
import { Hint } from "../../../parts/Field";
import { Ledger } from "../../../parts/Ledger";
import { Fault } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { PickField } from "../../../parts/PickField";
import { Bar, Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { Waiting } from "../../../parts/Waiting";
import { seasonParts } from "../seasonParts";
import { Acting } from "./Acting";
import { Events } from "./Events";
import { Money } from "./Money";
import { Outlines } from "./Outlines";
import { keyOf } from "./stands";
import { Totals } from "./Totals";
import { TurnPanel } from "./TurnPanel";
import { YearStrip } from "./YearStrip";

const Year = styled.section`
  padding: 12px 0 14px;
  border-bottom: 1px solid ${t.hair};
  h3 {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    align-items: baseline;
    font-size: ${t.s18};
  }
  h3 small {
    font: 400 ${t.s13} ${t.text};
    color: ${t.soft};
  }
`;
const Small = styled.small`
  display: block;
  color: ${t.soft};
`;

/** The season's programme: what is meant on which ground when, how it stands, and what the year brings. */
export function ProgrammePage() {
  const [asked, change] = useAsked();
  const found = useProgramme(Number(asked.get("year")) || undefined);
  return (
    <Waiting of={found}>
      {(data) => <Whole key={data.year} data={data} onYear={(year) => change({ year })} />}
    </Waiting>
  );
}

function Whole({ data, onYear }: { data: Programme; onYear: (year: string) => void }) {
  const account = useAccount();
  const may = useMay("manager");
  const [picked, setPicked] = useState<string | null>(null);
  const [listed, setListed] = useState(false);
  const [day, setDay] = useState("");
  const every = data.areas.flatMap((a) => a.turns);
  const turn = every.find((x) => keyOf(x) === picked);
  const pick = (list: boolean) => (x: Turn, on?: string) => {
    setPicked(keyOf(x) === picked && list && listed ? null : keyOf(x));
    setListed(list);
    setDay(on ?? "");
  };
  const panel = turn && (
    <TurnPanel
      key={picked}
      turn={turn}
      step={data.steps.find((s) => s.id === turn.step_id)}
      day={day}
      onDay={setDay}
    />
  );
  return (
    <Page
      sentence={data.sentence}
      act={may && <ButtonLink to="step/new">Add a step</ButtonLink>}
      margin={
        <>
          {every.length > 0 && (
            <Section title="A turn">
              <Hint>
                Press a mark to see why then. Drag it, or step it with ← and →, to ask the gate about another
                day.
              </Hint>
            </Section>
          )}
          <Events events={data.events} may={may} />
          {may && <Money key={data.money.allowed} year={data.year} money={data.money} />}
        </>
      }
    >
      <SubRule label="Parts of the season" parts={seasonParts(account)} />
      <div style={{ maxWidth: 200, marginBottom: 14 }}>
        <PickField
          label="Year"
          name="year"
          value={`${data.year}`}
          options={data.years.map((y) => ({ key: `${y}`, text: `${y}` }))}
          onChange={onYear}
        />
      </div>
      {data.acts.length > 0 && (
        <Section title="Due and coming">
          <Acting turns={data.acts} picked={listed ? picked : null} onPick={pick(true)} panel={panel} />
        </Section>
      )}
      {data.areas.length > 0 && (
        <Section title={`The year${data.cost ? `: what is to come costs ${data.cost}` : ""}`}>
          <Hint>
            ● done ■ late ◆ due ▷ coming ○ later ◌ waits for weather × skipped □ missed; green: how well the
            grass grows by the weather of the years before.
          </Hint>
          {data.money.total && <Totals of={[data.money.total]} />}
          {data.areas.map((a) => (
            <Year key={a.area_id} aria-label={a.area}>
              <h3>
                {a.area}
                <small>
                  {[a.site, a.grass, a.outings, a.cost && `${a.cost} to come`].filter(Boolean).join(", ")}
                </small>
              </h3>
              <YearStrip
                area={a}
                year={data.year}
                today={data.today}
                picked={picked}
                day={day}
                onPick={pick(false)}
              />
              {!listed && turn?.area_id === a.area_id && panel}
              <Totals of={a.totals} />
            </Year>
          ))}
        </Section>
      )}
      {data.steps.length > 0 && <Steps data={data} may={may} />}
      {may && <Copy data={data} />}
      {may && <Outlines year={data.year} />}
      <Hint style={{ marginTop: 24 }}>
        A programme is a plan: look at the turf and the weather first. The label, local rules and licensed
        practice come before it.
      </Hint>
    </Page>
  );
}

function Steps({ data, may }: { data: Programme; may: boolean }) {
  return (
    <Section title="Steps">
      <Ledger>
        <thead>
          <tr>
            <th>Step</th>
            <th>When</th>
            <th className="wide">Where</th>
          </tr>
        </thead>
        <tbody>
          {data.steps.map((s) => (
            <tr key={s.id}>
              <td>
                {may ? <Link to={`step/${s.id}?year=${data.year}`}>{s.name}</Link> : s.name}
                <Small>{s.mix}</Small>
              </td>
              <td>
                {s.when_text}
                {s.differs && <Small>{s.differs}</Small>}
              </td>
              <td className="wide">{s.where}</td>
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Section>
  );
}

function Copy({ data }: { data: Programme }) {
  const copy = useCopyYear();
  const last = data.year - 1;
  if (!data.before || data.steps.length) return null;
  return (
    <Section title={`${last} again`}>
      <Hint>{`${last} had ${data.before} ${data.before === 1 ? "step" : "steps"}; each is moved by a year.`}</Hint>
      <Bar style={{ marginTop: 8 }}>
        <Button
          look="main"
          isDisabled={copy.isPending}
          onPress={() =>
            copy.mutate(
              { from_year: last, year: data.year },
              { onSuccess: () => say(`The steps of ${last} stand in ${data.year}.`) },
            )
          }
        >
          {`Copy ${last}`}
        </Button>
      </Bar>
      <Fault error={copy.error} />
    </Section>
  );
}
