import styled from "styled-components";
import { read, send, type Schemas } from "../../api/client";
import { useChange, useHouse } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Hint } from "../../parts/Field";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section, Stack } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";
import { DayOfYear } from "./DayOfYear";

const Question = styled.fieldset`
  border: 0;
  border-bottom: 1px solid ${t.hair};
  margin: 0;
  padding: 0 0 16px;
  legend {
    font: 500 ${t.s18} ${t.serif};
    padding: 0 0 2px;
  }
`;
const Options = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 8px 24px;
  margin-top: 8px;
`;
const Choice = styled.label`
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 2px 8px;
  align-content: start;
  padding: 6px 0;
  cursor: pointer;
  input {
    width: 18px;
    height: 18px;
    margin: 2px 0 0;
    accent-color: ${t.accent};
  }
  small {
    grid-column: 2;
    font-size: ${t.s13};
    color: ${t.soft};
  }
  strong {
    font-weight: 600;
  }
`;

interface Typed {
  version: number;
  answers: Record<string, string>;
  season_start: Schemas["DayOut"];
}

/** The account's house rules: each question with what both sides say, and what the answer changes. */
export function HousePage() {
  const house = useHouse();
  return <Waiting of={house}>{(found) => <HouseForm key={JSON.stringify(found)} house={found} />}</Waiting>;
}

function HouseForm({ house }: { house: Schemas["HouseOut"] }) {
  const account = useAccount();
  const may = useMay("manager") && account.whole;
  const { value, change, clear, kept } = useDraft<Typed>(`${account.slug}/house`, {
    version: house.version,
    answers: Object.fromEntries(house.questions.map((q) => [q.key, q.chosen])),
    season_start: house.season_start,
  });
  const save = useChange((path, body: Schemas["HouseIn"]) =>
    read(send.PUT("/api/accounts/{account}/house", { params: { path }, body })),
  );
  const own = house.questions.filter((q) => value.answers[q.key] !== q.default).length;
  return (
    <Page
      sentence={`House rules: ${own === 0 ? "all as they come" : own === 1 ? "one of your own" : `${own} of your own`}. The label overrides every one.`}
    >
      <SubRule label="Parts of the account" parts={accountParts(account)} />
      <Form
        label="House rules"
        error={save.error}
        onSubmit={() =>
          save.mutate(value, {
            onSuccess: () => {
              clear();
              say("The house rules are kept.");
            },
          })
        }
      >
        {kept && <Hint>Brought back from what you had picked before.</Hint>}
        {!may && <Notice tone="note">You can read the house rules. A manager changes them.</Notice>}
        <Stack $gap={18}>
          {house.questions.map((q) => (
            <Question key={q.key} disabled={!may}>
              <legend>{q.ask}</legend>
              <Hint>{`It changes: ${q.changes.charAt(0).toLowerCase()}${q.changes.slice(1)}`}</Hint>
              <Options>
                {q.options.map((o) => (
                  <Choice key={o.key}>
                    <input
                      type="radio"
                      name={q.key}
                      checked={value.answers[q.key] === o.key}
                      onChange={() => change({ answers: { ...value.answers, [q.key]: o.key } })}
                    />
                    <strong>{o.text}</strong>
                    <small>{o.reason}</small>
                  </Choice>
                ))}
              </Options>
            </Question>
          ))}
        </Stack>
        <Section title="The season">
          <div style={{ maxWidth: 420 }}>
            <DayOfYear
              label="Season’s totals start on"
              name="season_start"
              value={value.season_start}
              onChange={(season_start) => change({ season_start })}
            />
          </div>
        </Section>
        <Fault error={save.error} besides={["season_start"]} />
        {may && (
          <Bar>
            <Button look="main" type="submit" isDisabled={save.isPending}>
              Keep the house rules
            </Button>
          </Bar>
        )}
      </Form>
    </Page>
  );
}
