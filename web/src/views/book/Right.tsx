import { useState } from "react";
import { api, read, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField, TimeField } from "../../parts/DateField";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Bar, Fields, OnScreen, Section } from "../../parts/Section";
import { StrikeForm } from "../../parts/StrikeForm";
import { TextField } from "../../parts/TextField";
import { doseUnits } from "../../parts/units";

type Application = Schemas["ApplicationOut"];

/** Put an application right, or strike it: with a reason, and with what it said before kept beside it. */
export function Right({ of }: { of: Application }) {
  const [what, setWhat] = useState<"" | "correct" | "strike">("");
  const done = () => setWhat("");
  if (what === "correct") return <Correct of={of} onDone={done} />;
  if (what === "strike") return <Strike of={of} onDone={done} />;
  return (
    <OnScreen>
      <Section title="Is something wrong here?">
        <Bar>
          <Button onPress={() => setWhat("correct")}>Correct it</Button>
          <Button look="quiet" onPress={() => setWhat("strike")}>
            Strike it
          </Button>
        </Bar>
      </Section>
    </OnScreen>
  );
}

function Correct({ of: a, onDone }: { of: Application; onDone: () => void }) {
  const { units } = useAccount();
  const list = [...doseUnits(units, true), ...doseUnits(units, false)];
  const [v, setV] = useState({
    why: "",
    on: a.applied_on,
    clock: a.clock,
    wind: a.wind,
    air: a.air,
    note: a.note,
    by: a.by,
  });
  const [used, setUsed] = useState<TypedQuantity[]>(
    a.entries.map((e) => ({ value: e.used_value, unit: e.used_unit })),
  );
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const correct = useChange((path, body: Schemas["CorrectIn"]) =>
    read(
      api.POST("/api/accounts/{account}/book/{application_id}/correct", {
        params: { path: { ...path, application_id: a.id } },
        body,
      }),
    ),
  );
  return (
    <Section title="Correct it">
      <Form
        label="Correct it"
        error={correct.error}
        onSubmit={() =>
          correct.mutate(
            {
              ...v,
              version: a.formers.length,
              used: a.entries
                .map((e, i) => ({ position: i, amount: e.used_value ? used[i]! : null }))
                .filter((u) => u.amount !== null),
            },
            {
              onSuccess: () => {
                onDone();
                say("It is put right. What it said before stands below it.");
              },
            },
          )
        }
      >
        <Fields $columns={3}>
          <DateField label="Done on" name="on" value={v.on} onChange={(on) => change({ on })} />
          <TimeField label="At" name="clock" value={v.clock} onChange={(clock) => change({ clock })} />
          {a.entries.map(
            (e, i) =>
              e.used_value && (
                <QuantityField
                  key={e.id}
                  label={`Used of ${e.product}`}
                  name={`used.${i}.amount`}
                  value={used[i]!}
                  units={list}
                  onChange={(next) => setUsed((now) => now.map((x, n) => (n === i ? next : x)))}
                />
              ),
          )}
          <TextField label="Wind" name="wind" value={v.wind} onChange={(wind) => change({ wind })} />
          <TextField label="Air" name="air" value={v.air} onChange={(air) => change({ air })} />
          <TextField label="By" name="by" value={v.by} onChange={(by) => change({ by })} />
          <TextField label="Note" name="note" lines value={v.note} onChange={(note) => change({ note })} />
          <TextField
            label="Why it is corrected"
            name="why"
            value={v.why}
            onChange={(why) => change({ why })}
          />
        </Fields>
        <Hint style={{ marginTop: 8 }}>
          Rates, cost, stock and the rules of the season follow. What it said before stays readable.
        </Hint>
        <Bar style={{ marginTop: 12 }}>
          <Button type="submit" look="main" isDisabled={correct.isPending}>
            Put it right
          </Button>
          <Button look="quiet" onPress={onDone}>
            Leave it
          </Button>
        </Bar>
        <Fault
          error={correct.error}
          besides={["why", "on", "clock", ...a.entries.map((_, i) => `used.${i}.amount`)]}
        />
      </Form>
    </Section>
  );
}

function Strike({ of: a, onDone }: { of: Application; onDone: () => void }) {
  const strike = useChange((path, body: Schemas["StrikeEntryIn"]) =>
    read(
      api.POST("/api/accounts/{account}/book/{application_id}/strike", {
        params: { path: { ...path, application_id: a.id } },
        body,
      }),
    ),
  );
  return (
    <Section title="Strike it">
      <StrikeForm
        label="Strike it"
        of={strike}
        onStrike={(why, then) => strike.mutate({ version: a.formers.length, why }, then)}
        onDone={onDone}
        hint="It stays readable and counts for nothing; what it took from a lot is put back."
      />
    </Section>
  );
}

/** What an application said before it was corrected. */
export function Formers({ of }: { of: Schemas["FormerOut"][] }) {
  if (!of.length) return null;
  return (
    <Section title="What it said before">
      <Ledger>
        <thead>
          <tr>
            <th>Corrected</th>
            <th>What</th>
            <th>Before</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {of.map((f, n) =>
            f.changes.map((c, i) => (
              <tr key={`${n}-${c.what}`}>
                <td className="soft">{i === 0 && `${f.day} by ${f.by}: ${f.why}`}</td>
                <td>{c.what}</td>
                <td>{c.was === "—" ? c.was : <s>{c.was}</s>}</td>
                <td>{c.now}</td>
              </tr>
            )),
          )}
        </tbody>
      </Ledger>
    </Section>
  );
}
