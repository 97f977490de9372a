import { useNavigate } from "react-router";
import styled from "styled-components";
import { useMakePlan, usePlanOptions, useTakePlan, type MadePlan, type PlanAsk } from "../../../api/plans";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { say } from "../../../app/toast";
import { useDraft } from "../../../app/draft";
import { Button } from "../../../parts/Button";
import { Hint } from "../../../parts/Field";
import { Fault } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { Bar, Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { Waiting } from "../../../parts/Waiting";
import { seasonParts } from "../seasonParts";
import { Beside } from "./Beside";
import { Exam } from "./Exam";
import { Outings } from "./Outings";
import { asked, begin, PlanForm, type PlanDraft } from "./PlanForm";

const Far = styled.div`
  margin-top: 18px;
  progress {
    display: block;
    width: min(420px, 100%);
    height: 10px;
    accent-color: ${t.accent};
  }
`;
const List = styled.ul`
  display: grid;
  gap: 6px;
  small {
    display: block;
    color: ${t.soft};
    font-size: ${t.s13};
  }
`;

/** A year planned by the tool: what is asked, how far it is, the plan with its reasons, and what takes it over. */
export function PlanPage() {
  const options = usePlanOptions();
  return (
    <Waiting of={options}>
      {(data) => <Whole initial={begin(data)} years={data.years} currency={data.currency} />}
    </Waiting>
  );
}

interface Props {
  initial: PlanDraft;
  years: number[];
  currency: string;
}

function Whole({ initial, years, currency }: Props) {
  const account = useAccount();
  const may = useMay("manager");
  const { value, change } = useDraft<PlanDraft>(`${account.slug}/plan`, initial);
  const making = useMakePlan();
  const { plan, progress, exam } = making;
  return (
    <Page sentence={plan ? plan.sentence : "What should go down where and when this year?"}>
      <SubRule label="Parts of the season" parts={seasonParts(account)} />
      <PlanForm
        value={value}
        onChange={change}
        years={years}
        currency={currency}
        error={making.error}
        running={making.running}
        onSubmit={() => making.start(asked(value))}
      />
      <div aria-live="polite">
        {making.running && (
          <Far>
            <progress value={progress?.share ?? 0} aria-label="How far the plan is" />
            <Hint>{progress?.text ?? "Begun"} …</Hint>
            <Button onPress={making.cancel}>Stop it</Button>
          </Far>
        )}
      </div>
      {plan && making.asked && (
        <>
          <Section title="The plan">
            <p>{plan.proof}</p>
            {plan.change && <p style={{ marginTop: 6 }}>{plan.change}</p>}
            {may && <Take plan={plan} ask={making.asked} />}
            <Outings plan={plan} />
          </Section>
          <Told title="Kept steps against a rule" of={plan.contradictions} />
          <Told title="What changes" of={plan.changes} />
          <Told title="To mind" of={plan.notes} />
          <Beside rivals={plan.rivals} />
          {exam && exam.length > 0 && <Exam rows={exam} />}
          {plan.bare.length > 0 && (
            <Section title="What stays without cover">
              <List>
                {plan.bare.map((b) => (
                  <li key={b.what}>
                    <strong>{b.what}</strong>: {b.text}
                    <small>{b.why}</small>
                  </li>
                ))}
              </List>
            </Section>
          )}
        </>
      )}
      <Hint style={{ marginTop: 24 }}>
        A plan is a proposal: look at the turf and the weather before each outing. The label, local rules and
        licensed practice come first.
      </Hint>
    </Page>
  );
}

function Told({ title, of }: { title: string; of: string[] }) {
  if (!of.length) return null;
  return (
    <Section title={title}>
      <List>
        {of.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </List>
    </Section>
  );
}

function Take({ plan, ask }: { plan: MadePlan; ask: PlanAsk }) {
  const account = useAccount();
  const navigate = useNavigate();
  const take = useTakePlan();
  if (!plan.choices.length) return null;
  return (
    <>
      <Bar style={{ marginTop: 12 }}>
        <Button
          look="main"
          isDisabled={take.isPending}
          onPress={() =>
            take.mutate(
              { ask, choices: plan.choices },
              {
                onSuccess: () => {
                  say("The plan stands in the programme.");
                  void navigate(`/a/${account.slug}/season/programme?year=${ask.year}`);
                },
              },
            )
          }
        >
          Take this plan
        </Button>
        <Hint>Its outings become steps. What you set by hand stays as it is.</Hint>
      </Bar>
      <Fault error={take.error} />
    </>
  );
}
