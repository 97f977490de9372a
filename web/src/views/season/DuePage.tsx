import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useDropPlanned, useDueWhole, usePlanDue, useStartDue } from "../../api/sky";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Findings } from "../../parts/Findings";
import { Hint } from "../../parts/Field";
import { FitMark } from "../../parts/FitMark";
import { FreshLine } from "../../parts/FreshLine";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, Section } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";
import { HoursLink } from "../sky/HoursLink";

type Choice = Schemas["DueChoiceOut"];

const Item = styled.article`
  padding: 12px 0;
  border-bottom: 1px solid ${t.hair};
  h3 {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: baseline;
    font-size: ${t.s18};
  }
  h3 small {
    font: 400 ${t.s13} ${t.text};
    color: ${t.soft};
  }
  ul {
    margin: 6px 0;
  }
`;
const Go = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: end;
  margin-top: 8px;
`;

/** One due thing whole: why, when, and which products may go down, each with its reason or its rule. */
export function DuePage() {
  const { area, disease = "" } = useParams();
  const found = useDueWhole(Number(area), disease);
  return <Waiting of={found}>{(data) => <Due found={data} />}</Waiting>;
}

/** What is due, in a sentence. */
function told(line: Schemas["DueLineOut"]) {
  const against = line.title.split(" on ")[0]!.toLowerCase();
  return `Protection of ${line.area} against ${against} is ${line.state === "coming" ? "coming due" : line.state_text}.`;
}

function Due({ found }: { found: Schemas["DueWholeOut"] }) {
  const { line } = found;
  const account = useAccount();
  const allowed = found.choices.filter((c) => c.allowed);
  const refused = found.choices.filter((c) => !c.allowed);
  const [machine, setMachine] = useState(found.machines.find((m) => m.suggested)?.id ?? null);
  const may = useMay("applicator");
  return (
    <Page
      sentence={`${told(line)} ${line.why}`}
      margin={
        <>
          <Section title="When">
            <p>
              {line.by_text && `Due ${line.by_text}. `}
              {line.delay}
            </p>
            {line.window && (
              <p style={{ marginTop: 8 }}>
                <FitMark verdict={line.window.verdict} /> {line.window.text}
              </p>
            )}
            <Planned found={found} />
          </Section>
          {found.covers.length > 0 && (
            <Section title="What covered it">
              {found.covers.map((c) => (
                <p key={c}>{c}</p>
              ))}
            </Section>
          )}
          <Section title="See also">
            <p>
              <Link to={`/a/${account.slug}/sky?area=${line.area_id}`}>{line.area}, day by day</Link>
            </p>
            <p>
              <Link to={`/a/${account.slug}/sky/watch?area=${line.area_id}`}>
                How it is watched, and what scouts found
              </Link>
            </p>
          </Section>
          <Hint style={{ marginTop: 20 }}>
            Scout before you spray. Wear what the label asks for, keep off water and drains, and keep people
            off until it may be walked on. The label, local rules and licensed practice come first.
          </Hint>
        </>
      }
    >
      <FreshLine fresh={found.fresh} />
      {line.round_id !== null && (
        <Notice tone="note" word="Under way">
          <Link to={`/a/${account.slug}/round/${line.round_id}`}>A round against it is under way.</Link>
        </Notice>
      )}
      {line.zones.map((z) => (
        <Notice key={z} tone="note" word="In zones">
          {z}
        </Notice>
      ))}
      <Section
        title={allowed.length ? "May go down, the first choice first" : "Nothing on the shelf may go down"}
      >
        {may && allowed.length > 0 && found.machines.length > 0 && (
          <div style={{ maxWidth: 280 }}>
            <PickField
              label="With"
              name="machine_id"
              value={machine === null ? null : String(machine)}
              options={found.machines.map((m) => ({
                key: String(m.id),
                text: m.name,
                note: m.suggested ? "used here last" : undefined,
              }))}
              onChange={(key) => setMachine(Number(key))}
            />
          </div>
        )}
        {allowed.map((c, i) => (
          <Allowed key={c.product_id} choice={c} first={i === 0} line={line} machine={machine} />
        ))}
        {!allowed.length && <Hint>Each of them with the rule that keeps it off stands below.</Hint>}
      </Section>
      {refused.length > 0 && (
        <Section title="May not">
          {refused.map((c) => (
            <Item key={c.product_id} data-choice={c.product} data-allowed="no">
              <h3>
                {c.product} <small>{c.codes}</small>
              </h3>
              <Findings of={c.refused} />
            </Item>
          ))}
        </Section>
      )}
    </Page>
  );
}

interface AllowedProps {
  choice: Choice;
  first: boolean;
  line: Schemas["DueLineOut"];
  machine: number | null;
}

function Allowed({ choice: c, first, line, machine }: AllowedProps) {
  const account = useAccount();
  const may = useMay("applicator");
  const navigate = useNavigate();
  const start = useStartDue();
  const plan = usePlanDue();
  const drop = useDropPlanned();
  const window = c.window?.begin && c.window.end ? c.window : null;
  const begin = () =>
    machine !== null &&
    start.mutate(
      {
        area_id: line.area_id,
        disease: line.disease,
        product_id: c.product_id,
        machine_id: machine,
        passes: 1,
      },
      { onSuccess: (made) => void navigate(`/a/${account.slug}/round/${made.id}`) },
    );
  const later = () =>
    window &&
    plan.mutate(
      {
        area_id: line.area_id,
        disease: line.disease,
        product_id: c.product_id,
        begin: window.begin!,
        end: window.end!,
      },
      {
        onSuccess: (made) =>
          say(`Planned for ${window.text}.`, () => made.line.planned && drop.mutate(made.line.planned.id)),
      },
    );
  return (
    <Item data-choice={c.product} data-allowed="yes">
      <h3>
        {c.product} <small>{c.codes}</small>
      </h3>
      <p>
        {c.rate}
        {c.intent !== "any" && `, ${c.intent}`}: {c.amount} in all{c.cost && `, ${c.cost}`}
      </p>
      <ul>
        {c.why.map((w) => (
          <li key={w}>
            <Hint as="span">{w}</Hint>
          </li>
        ))}
      </ul>
      <Findings of={c.warns} />
      {c.window && (
        <p>
          <FitMark verdict={c.window.verdict} /> {c.window.text}
        </p>
      )}
      {may && (
        <Go>
          <Button
            look={first ? "main" : "plain"}
            isDisabled={machine === null || start.isPending}
            onPress={begin}
          >
            Make it a round
          </Button>
          {window && (
            <Button isDisabled={plan.isPending} onPress={later}>
              Plan it for these hours
            </Button>
          )}
          <HoursLink area={line.area_id} products={[c.product_id]} />
        </Go>
      )}
      <Fault error={start.error ?? plan.error} />
    </Item>
  );
}

function Planned({ found }: { found: Schemas["DueWholeOut"] }) {
  const drop = useDropPlanned();
  const may = useMay("applicator");
  const p = found.line.planned;
  if (!p) return null;
  return (
    <Notice tone={p.missed ? "stop" : "note"} word={p.missed ? "Missed" : "Planned"}>
      {p.product}, {p.text}, by {p.by}
      {p.missed ? `: ${p.cost}.` : "."}
      {may && (
        <Bar style={{ marginTop: 6 }}>
          <Button
            look="quiet"
            onPress={() => drop.mutate(p.id, { onSuccess: () => say("The plan is dropped.") })}
          >
            Drop the plan
          </Button>
        </Bar>
      )}
    </Notice>
  );
}
