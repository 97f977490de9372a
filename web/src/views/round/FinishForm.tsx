import { useNavigate } from "react-router";
import { api, read, type Schemas } from "../../api/client";
import { useActual, useChange } from "../../api/hooks";
import { useSky } from "../../api/sky";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { Bar, Fields, OnScreen, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { areaUnits, volumeUnits } from "../../parts/units";
import { Verdict } from "../../parts/Verdict";
import { AsMet, DoneWhen, justNow, unmet, type Done, type Met } from "./AsMet";
import { asPlanned, UsedFields, usedIn, type TypedUse } from "./UsedFields";

interface Typed extends Met, Done {
  used: TypedUse[];
  treated: TypedQuantity[];
  spray: TypedQuantity;
  setting: string;
  teach: boolean;
  walked: string;
}

interface Props {
  round: Schemas["RoundOut"];
  early: boolean;
  onGiveUp: () => void;
}

/** What was really used: judged area by area as it is typed, then put in the book. */
export function FinishForm({ round, early, onGiveUp }: Props) {
  const account = useAccount();
  const navigate = useNavigate();
  const { value, change, clear } = useDraft<Typed>(`${account.slug}/finish/${round.id}`, {
    used: asPlanned(round.mix),
    treated: round.parts.map((p) => ({ value: p.skipped ? "0" : p.treated.exact, unit: p.treated.unit })),
    spray: { value: "", unit: round.planned_spray?.unit ?? "gal" },
    setting: "",
    teach: false,
    walked: "",
    ...unmet,
    ...justNow,
  });
  const mast = useSky(round.site_id).data?.fresh;
  const used = Array.isArray(value.used) ? value.used : asPlanned(round.mix); // a draft of before there were mixes
  const body: Schemas["FinishIn"] = {
    ...value,
    used: usedIn(used),
    spray: value.spray.value.trim() ? value.spray : null,
    by: "",
    walked: value.walked ? Number(value.walked) : null,
    on: value.on || null,
  };
  const settled = useSettled(JSON.stringify(body), 80);
  const needed = round.mix.every((c, i) => !c.planned || used[i]?.amount.value.trim());
  const typed = needed && value.treated.every((x) => x.value.trim());
  const actual = useActual(round.id, typed ? (JSON.parse(settled) as Schemas["FinishIn"]) : null);
  const finish = useChange((path, given: Schemas["FinishIn"]) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/finish", {
        params: { path: { ...path, round_id: round.id } },
        body: given,
      }),
    ),
  );
  const submit = () =>
    finish.mutate(body, {
      onSuccess: (made) => {
        clear();
        say("It is in the book.");
        const booked = `book/${made.length === 1 ? made[0]!.id : ""}`;
        const next = round.outing_id === null ? booked : `round/outing/${round.outing_id}`;
        void navigate(`/a/${account.slug}/${next}`);
      },
    });
  const many = round.parts.length > 1;
  return (
    <OnScreen>
      <Section title="What was really used">
        {early && (
          <Hint style={{ marginBottom: 12 }}>
            Not every load is ticked yet. It can go in the book all the same, as it really was.
          </Hint>
        )}
        <Form label="What was really used" error={finish.error} live={actual.error} onSubmit={submit}>
          <Fields $columns={3}>
            <UsedFields
              mix={round.mix}
              used={used}
              onChange={(next) => change({ used: next })}
              hint={many ? "In all: it is shared out by plan and ground." : undefined}
            />
            {round.parts.map((part, i) => (
              <QuantityField
                key={part.name}
                label={many ? `Treated of ${part.name}` : "Ground treated"}
                hint={many ? "0 where it was left out." : undefined}
                name={`treated.${i}`}
                value={value.treated[i] ?? { value: "", unit: part.treated.unit }}
                units={areaUnits(account.units)}
                onChange={(size) => change({ treated: value.treated.map((x, j) => (j === i ? size : x)) })}
              />
            ))}
            {round.planned_spray && (
              <QuantityField
                label="Spray put down"
                name="spray"
                value={value.spray}
                units={volumeUnits(account.units)}
                onChange={(spray) => change({ spray })}
                hint={`Empty: as planned, ${round.planned_spray.text}. What was measured tells of the sprayer.`}
              />
            )}
            {!round.planned_spray && (
              <TextField
                label="The spreader stood at"
                name="setting"
                value={value.setting}
                onChange={(setting) => change({ setting })}
                hint="Where what was used was weighed, it tells what this setting puts down."
                input={{ inputMode: "decimal" }}
              />
            )}
            <PickField
              label="Passes walked"
              name="walked"
              value={value.walked || `${round.sheet.passes}`}
              options={[1, 2, 3, 4, 5, 6, 7, 8].map((n) => ({ key: `${n}`, text: `${n}` }))}
              onChange={(walked) => change({ walked })}
              hint="What was left and walked out over the ground again is one more."
            />
            <AsMet value={value} change={change} />
            <DoneWhen value={value} change={change} />
          </Fields>
          {mast && mast.air && mast.wind && !value.wind && !value.air && (
            <Button look="quiet" onPress={() => change({ wind: mast.wind, air: mast.air })}>
              {`Take ${mast.wind} and ${mast.air} from ${mast.station}`}
            </Button>
          )}
          {actual.data && !actual.error && typed && (
            <div style={{ marginTop: 16 }}>
              {actual.data.parts.flatMap((part) =>
                part.doses.map((dose) => (
                  <div key={`${part.name} ${dose.product}`} style={{ marginBottom: 12 }}>
                    <p>
                      {[many && `${part.name}, ${dose.used}`, round.mix.length > 1 && dose.product]
                        .filter(Boolean)
                        .map((x) => `${x}: `)}
                      That came to <strong data-answer="actual">{dose.rate}</strong>, {dose.against_plan}.
                    </p>
                    <RateRule
                      rule={dose.rule}
                      label={`Rate really put down of ${dose.product}`}
                      text={dose.rate}
                    />
                    <Verdict judgement={dose.judgement} />
                  </div>
                )),
              )}
              {actual.data.partly && (
                <Notice tone="caution" word="Part of the tank is left">
                  {actual.data.partly.sentence}
                  <Button
                    onPress={() =>
                      change({
                        used: used.map((u, i) => {
                          const down = actual.data!.partly!.used[i];
                          return down ? { ...u, amount: { value: down.exact, unit: down.unit } } : u;
                        }),
                      })
                    }
                  >
                    Enter what went down
                  </Button>
                </Notice>
              )}
              {actual.data.taught && (
                <Notice tone={actual.data.taught.far ? "caution" : "note"} word="The machine">
                  {actual.data.taught.sentence}
                  <Switch value={value.teach} onChange={(teach) => change({ teach })}>
                    {actual.data.taught.sprayer
                      ? "Take this as its output from now on"
                      : "Keep this as a test of that setting"}
                  </Switch>
                </Notice>
              )}
              {actual.data.parts.some((part) => part.doses.some((d) => d.judgement.refused)) && (
                <Notice tone="stop" word="It goes in the book all the same">
                  It is recorded as it was, and marked. Check the numbers; if they are right, ask whoever
                  answers for the label what follows.
                </Notice>
              )}
            </div>
          )}
          <Fault
            error={finish.error}
            besides={["used", "treated", "spray", "setting", "wind", "air", "note", "on", "clock"]}
          />
          <Bar>
            <Button look="main" type="submit" isDisabled={finish.isPending}>
              Put it in the book
            </Button>
            <Button look="stop" onPress={onGiveUp}>
              Give the round up
            </Button>
          </Bar>
        </Form>
      </Section>
    </OnScreen>
  );
}
