import { useState } from "react";
import { CanMap } from "../../parts/CanMap";
import { CurveChart } from "../../parts/CurveChart";
import { Hint } from "../../parts/Field";
import { LandingBars, LandingMap } from "../../parts/LandingMap";
import { OutputHistory } from "../../parts/OutputHistory";
import { PaceBeat } from "../../parts/PaceBeat";
import { PassMap } from "../../parts/PassMap";
import { PatternChart, SpacingChart } from "../../parts/PatternChart";
import { RunsRule } from "../../parts/RunsRule";
import { Fields, Section, Stack } from "../../parts/Section";
import { StopWatch } from "../../parts/StopWatch";
import { Tasks } from "../../parts/Tasks";
import { TipsChart } from "../../parts/TipsChart";
import { audit, field } from "./fieldSamples";

/** The parts of Kit, Passes and Water, in every state. */
export function FieldParts() {
  const [said, say] = useState("");
  return (
    <>
      <Section title="Clock and beat">
        <Stack>
          <StopWatch of="a run" onStop={(s) => say(`${s} s`)} />
          <PaceBeat beat={1} marks="3 m" onSplit={(s) => say(`${s} s`)} />
          <Hint>{said || "Nothing is timed yet."}</Hint>
        </Stack>
      </Section>
      <Section title="Runs, tips, output over time">
        <Stack>
          <RunsRule runs={field.runs} />
          <TipsChart tips={field.tips} />
          <OutputHistory points={field.history} symbol="L/100 m²" />
        </Stack>
      </Section>
      <Section title="Pattern, spacing, settings">
        <PatternChart pattern={field.pattern} />
        <SpacingChart pattern={field.pattern} />
        <CurveChart curve={field.curve} at={{ setting: 7, rate: 1.5 }} />
      </Section>
      <Section title="Passes and what lands">
        <PassMap plan={field.plan} us={false} sides />
        <LandingMap landed={field.landed} plan={field.plan} us={false} />
        <LandingBars landed={field.landed} />
      </Section>
      <Section title="Cans and tasks">
        <Fields>
          <CanMap audit={audit(field.placed)} plan={null} us={false} />
          <CanMap audit={audit(field.loose)} plan={null} us={false} />
        </Fields>
        <Tasks tasks={field.tasks} where />
      </Section>
    </>
  );
}
