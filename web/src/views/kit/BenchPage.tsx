import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useBench, useKeepCalibration, useKitOptions } from "../../api/kit";
import { useAsked } from "../../app/asked";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { MarginNotes } from "../../parts/MarginNotes";
import { Page } from "../../parts/Page";
import { PatternChart, SpacingChart } from "../../parts/PatternChart";
import { PickField } from "../../parts/PickField";
import { RunsRule } from "../../parts/RunsRule";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { TipsChart } from "../../parts/TipsChart";
import { benchesOf, blank, toFigures, type Bench, type Typed } from "./benches";
import { BenchFields } from "./BenchFields";
import { BenchRuns } from "./BenchRuns";
import { machineParts } from "./kitParts";
import { OfMachine } from "./OfMachine";

const Steps = styled.ol`
  counter-reset: step;
  display: grid;
  gap: 6px;
  max-width: 46em;
  margin: 14px 0 18px;
  li {
    display: grid;
    grid-template-columns: 24px 1fr;
  }
  li::before {
    counter-increment: step;
    content: counter(step);
    color: ${t.soft};
    font-weight: 600;
  }
`;
const Big = styled.p`
  font-size: ${t.s34};
  font-weight: 600;
  line-height: 1.15;
  margin-top: 20px;
  small {
    font-size: ${t.s15};
    font-weight: 400;
    color: ${t.soft};
  }
`;
const words = { one: "One run", agree: "They agree", mind: "Take care", differ: "They disagree" };

/** Calibrate a machine: pick the bench, follow its steps, and keep what it comes to. */
export function BenchPage() {
  return <OfMachine>{({ machine }) => <Benches key={machine.id} machine={machine} />}</OfMachine>;
}

function Benches({ machine }: { machine: Schemas["MachineOut"] }) {
  const [search, change] = useAsked();
  const benches = benchesOf(machine);
  const bench = benches.find((b) => b.method === search.get("bench")) ?? benches[0]!;
  return (
    <BenchView
      key={bench.method}
      machine={machine}
      bench={bench}
      benches={benches}
      onPick={(method) => change({ bench: method })}
    />
  );
}

interface Props {
  machine: Schemas["MachineOut"];
  bench: Bench;
  benches: Bench[];
  onPick: (method: string) => void;
}

function BenchView({ machine, bench, benches, onPick }: Props) {
  const account = useAccount();
  const may = useMay("manager");
  const mayKeep = useMay("applicator");
  const options = useKitOptions();
  const start = useMemo(() => blank(bench, machine, account.units), [bench, machine, account.units]);
  const draft = useDraft<Typed>(`${account.slug}/bench/${machine.id}/${bench.method}`, start);
  const [spacing, setSpacing] = useState<number | null>(null);
  const { value: typed, change } = draft;
  const figures = toFigures(bench, typed, bench.method === "pans" ? spacing : null);
  const settled = useSettled(JSON.stringify(figures), 80);
  const asked = JSON.parse(settled) as typeof figures;
  const found = useBench(machine.id, asked);
  const answer = asked && figures && !found.error ? found.data : undefined;
  const placed = faultsOf(asked ? found.error : null).fields;
  const faults = bench.runs?.many
    ? placed.map((f) => ({ ...f, field: f.field.replace(/^runs\.\d+$/, "runs") }))
    : placed;
  const general = faults.filter((f) => ["area", "unit", "method", "tips", "pans"].includes(f.field));
  return (
    <Page
      sentence={answer?.sentence ?? `${machine.name}: ${bench.name.toLowerCase()}.`}
      margin={
        answer && (
          <MarginNotes
            title="What it says"
            facts={answer.facts}
            notes={answer.notes}
            working={answer.working}
          />
        )
      }
    >
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, machine, may)} />
      <FaultsContext.Provider value={{ fields: faults, live: true }}>
        <Fields>
          <PickField
            label="Bench"
            name="bench"
            value={bench.method}
            options={benches.map((b) => ({ key: b.method, text: b.name, note: b.about }))}
            onChange={onPick}
          />
        </Fields>
        <Steps aria-label="How it is done">
          {bench.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </Steps>
        <BenchFields bench={bench} typed={typed} change={change} options={options.data} machine={machine} />
        {bench.runs && <BenchRuns bench={bench} typed={typed} change={change} />}
        {general.map((f) => (
          <Notice key={f.field} tone="stop" word="Not so">
            {f.problem} {f.remedy}
          </Notice>
        ))}
        {asked && found.error && placed.length === 0 && <Fault error={found.error} />}
      </FaultsContext.Provider>
      {answer && (
        <>
          <Big data-answer="bench" data-trust={answer.trust}>
            {answer.answer} <small>{answer.also.join(", ")}</small>
          </Big>
          {answer.runs.length > 0 && (
            <>
              {answer.trust !== "agree" && (
                <Notice tone={answer.trust === "differ" ? "stop" : "caution"} word={words[answer.trust]}>
                  {answer.verdict}
                </Notice>
              )}
              <RunsRule runs={answer.runs} />
            </>
          )}
          {answer.tips.length > 0 && <TipsChart tips={answer.tips} />}
          {answer.pattern && <PatternView pattern={answer.pattern} onPick={setSpacing} />}
          {mayKeep && (
            <KeepForm machine={machine} bench={bench} figures={figures!} onKept={() => draft.clear(start)} />
          )}
        </>
      )}
    </Page>
  );
}

function PatternView({
  pattern,
  onPick,
}: {
  pattern: Schemas["PatternOut"];
  onPick: (pans: number) => void;
}) {
  return (
    <>
      <PatternChart pattern={pattern} />
      <Section title="How far apart to walk">
        <SpacingChart pattern={pattern} onPick={onPick} />
        <Fields>
          <PickField
            label="Walk"
            name="spacing"
            value={`${pattern.spacings.find((s) => s.chosen)?.pans ?? ""}`}
            options={pattern.spacings.map((s) => ({
              key: `${s.pans}`,
              text: `${s.width} apart`,
              note: `${s.verdict}: CV ${s.cv_text} (n − 1), ${s.cv_n_text} (n)`,
            }))}
            onChange={(pans) => onPick(Number(pans))}
          />
        </Fields>
      </Section>
    </>
  );
}

interface KeepProps {
  machine: Schemas["MachineOut"];
  bench: Bench;
  figures: Schemas["BenchAskIn"]["figures"];
  onKept: () => void;
}

/** When, with what and in what weather it was done, and until when it is to be trusted. */
function KeepForm({ machine, bench, figures, onKept }: KeepProps) {
  const account = useAccount();
  const navigate = useNavigate();
  const products = useProducts().data ?? [];
  const keep = useKeepCalibration(machine.id);
  const [typed, setTyped] = useState({
    taken_on: todayHere(),
    expires_on: "",
    product: "",
    weather: "",
    note: "",
  });
  const set = (part: Partial<typeof typed>) => setTyped((now) => ({ ...now, ...part }));
  const wet = machine.kind === "sprayer";
  const submit = () =>
    keep.mutate(
      {
        figures,
        taken_on: typed.taken_on,
        expires_on: typed.expires_on || null,
        product_id: typed.product ? Number(typed.product) : null,
        weather: typed.weather,
        note: typed.note,
      },
      {
        onSuccess: () => {
          onKept();
          say(bench.method === "tips" ? "The check is kept." : "The calibration is kept and in use.");
          void navigate(`/a/${account.slug}/kit/${machine.id}`);
        },
      },
    );
  return (
    <Section title="Keep it">
      <Form label="Keep it" error={keep.error} onSubmit={submit}>
        <Fields $columns={3}>
          <DateField
            label="Done on"
            name="taken_on"
            value={typed.taken_on}
            onChange={(v) => set({ taken_on: v })}
          />
          <DateField
            label="Trusted until"
            name="expires_on"
            value={typed.expires_on}
            onChange={(v) => set({ expires_on: v })}
            hint="Empty: half a year."
          />
          {wet && (
            <PickField
              label="Filled with"
              name="product_id"
              value={typed.product}
              options={[
                { key: "", text: "Water" },
                ...products
                  .filter((p) => machine.takes.includes(p.id))
                  .map((p) => ({ key: `${p.id}`, text: p.name })),
              ]}
              onChange={(product) => set({ product })}
            />
          )}
          <TextField
            label="Weather"
            name="weather"
            value={typed.weather}
            onChange={(v) => set({ weather: v })}
          />
          <TextField label="Note" name="note" value={typed.note} onChange={(v) => set({ note: v })} />
        </Fields>
        <Fault error={keep.error} besides={["taken_on", "expires_on"]} />
        <Bar>
          <Button look="main" type="submit" isDisabled={keep.isPending}>
            {bench.method === "tips" ? "Keep the check" : "Keep it and use it"}
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}
