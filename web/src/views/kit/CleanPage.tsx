import { useState } from "react";
import { useClean, useTakeCleaningBack } from "../../api/kit";
import type { Schemas } from "../../api/client";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { machineParts } from "./kitParts";
import { OfMachine } from "./OfMachine";
import { dayAt } from "../../parts/days";

/** What was last in a machine, and the steps that clean it. */
export function CleanPage() {
  return <OfMachine>{(whole) => <CleanView key={whole.tank.on ?? ""} whole={whole} />}</OfMachine>;
}

function CleanView({ whole }: { whole: Schemas["MachineWholeOut"] }) {
  const account = useAccount();
  const may = useMay("manager");
  const mayClean = useMay("applicator");
  const { machine, tank, cleanings } = whole;
  const clean = useClean(machine.id);
  const undo = useTakeCleaningBack(machine.id);
  const [ticked, setTicked] = useState<string[]>([]);
  const boxes = tank.steps.map((s, n) => ({ ...s, id: `${n}` }));
  const note = () =>
    clean.mutate(
      { steps: boxes.filter((b) => ticked.includes(b.id)).map((b) => b.key), note: "" },
      {
        onSuccess: (now) => {
          setTicked([]);
          const made = now.cleanings[0];
          say(
            now.tank.clean ? `${machine.name} is clean.` : "The cleaning is noted; there is more to do.",
            made && (() => undo.mutate(made.id)),
          );
        },
      },
    );
  return (
    <Page
      sentence={tank.sentence}
      margin={
        <Section title="Take care">
          <Notice tone="caution" word="The label first">
            Where the label rules how it is cleaned, that counts. Spray rinses out on ground that the label
            lists, never into a drain or near water. Gloves and glasses stay on.
          </Notice>
        </Section>
      }
    >
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, machine, may)} />
      <Fault error={clean.error ?? undo.error} />
      {boxes.length > 0 && (
        <Section title={tank.clean ? "Done" : "To do, in this order"}>
          {boxes.map((b) => (
            <Switch
              key={b.id}
              large
              value={b.done || ticked.includes(b.id)}
              disabled={b.done || !mayClean}
              onChange={(on) => setTicked((now) => (on ? [...now, b.id] : now.filter((x) => x !== b.id)))}
            >
              {b.text}
            </Switch>
          ))}
          {mayClean && !tank.clean && (
            <Bar>
              <Button look="main" isDisabled={!ticked.length || clean.isPending} onPress={note}>
                Note the cleaning
              </Button>
            </Bar>
          )}
        </Section>
      )}
      {!boxes.length && <Hint>Once a round has been poured, what it asks for stands here.</Hint>}
      {cleanings.length > 0 && (
        <Section title="Cleaned before">
          <Ledger>
            <tbody>
              {cleanings.map((c) => (
                <tr key={c.id}>
                  <td className="day">{dayAt(c.at)}</td>
                  <td>{c.steps}</td>
                  <td className="soft">{[c.by, c.note].filter(Boolean).join(": ")}</td>
                </tr>
              ))}
            </tbody>
          </Ledger>
        </Section>
      )}
    </Page>
  );
}
