import { useState } from "react";
import { AreaPlan } from "../../parts/AreaPlan";
import { Budget } from "../../parts/Budget";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { FaultsContext } from "../../parts/faults";
import { Findings } from "../../parts/Findings";
import { ManyField } from "../../parts/ManyField";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { QuantityField } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { Fields, Section, Stack } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { Tank } from "../../parts/Tank";
import { Vessel } from "../../parts/Vessel";
import { Verdict } from "../../parts/Verdict";
import { Working } from "../../parts/Working";
import { FieldParts } from "./FieldParts";
import { SkyParts } from "./SkyParts";
import { samples } from "./samples";

/** Every part in every state, for those who build with them. */
export function Parts() {
  const [rule, setRule] = useState(samples.rule);
  const [typed, setTyped] = useState({ value: "3 oz", unit: "fl_oz" });
  const [on, setOn] = useState(true);
  const [many, setMany] = useState(["green", "tee"]);
  const [day, setDay] = useState(todayHere());
  return (
    <Page sentence="The parts, in every state." margin={<Working steps={samples.steps} />}>
      <Section title="Rate rule">
        <Stack>
          <RateRule
            rule={rule}
            label="Rate"
            text={`${rule.value}`}
            onChange={(value) => setRule({ ...rule, value })}
          />
          <RateRule rule={{ ...rule, value: rule.high * 1.15 }} label="Above" text="above" />
          <RateRule rule={{ ...rule, binds: false, value: rule.low * 0.6 }} label="Below" text="below" />
        </Stack>
      </Section>
      <Section title="Verdict and notices">
        <Stack>
          {samples.judgements.map((j) => (
            <Verdict key={j.word + String(j.refused)} judgement={j} />
          ))}
          <Notice tone="stop">Something that cannot go on.</Notice>
          <Notice tone="caution">Something to heed.</Notice>
          <Notice tone="note">Something to know.</Notice>
        </Stack>
      </Section>
      <Section title="What the rules say">
        <Findings of={samples.findings} onPick={(text) => setTyped({ value: text, unit: "fl_oz" })} />
      </Section>
      <Section title="Season budget">
        <Budget lines={samples.budget} />
      </Section>
      <Section title="Fields">
        <FaultsContext.Provider value={{ fields: samples.faults, live: true }}>
          <Fields>
            <QuantityField
              label="Amount, asked back"
              name="amount"
              value={typed}
              units={samples.units}
              onChange={setTyped}
            />
            <ManyField
              label="Several"
              name="many"
              values={many}
              options={samples.grounds}
              onChange={setMany}
            />
            <DateField label="Day" name="day" value={day} onChange={setDay} />
            <Switch value={on} onChange={setOn}>
              Ticked or not
            </Switch>
          </Fields>
        </FaultsContext.Provider>
        <Stack>
          <div>
            <Button look="main">Main</Button> <Button>Plain</Button> <Button look="stop">Stop</Button>{" "}
            <Button look="quiet">Quiet</Button> <Button isDisabled>Disabled</Button>
          </div>
          <Empty act={<Button look="main">The one thing to do</Button>}>
            A place with nothing in it yet.
          </Empty>
        </Stack>
      </Section>
      <Section title="Vessels and tanks">
        <Fields $columns={4}>
          {samples.measures.map((m) => (
            <Vessel key={m.vessel.key} measure={m} />
          ))}
          <Tank load={samples.tank} capacity="20 L" />
          <Tank load={samples.hopper} capacity="25 kg" />
          <Tank load={samples.bottle} capacity="1 L" />
        </Fields>
      </Section>
      <Section title="Plan of an area">
        <AreaPlan plan={samples.plan} us={false} label="A made-up lawn with a bed in it" />
      </Section>
      <FieldParts />
      <SkyParts />
    </Page>
  );
}
