import { useState } from "react";
import { FitMark } from "../../parts/FitMark";
import { FreshLine } from "../../parts/FreshLine";
import { HourGrid } from "../../parts/HourGrid";
import { LongChart } from "../../parts/LongChart";
import { RiskBar } from "../../parts/RiskBar";
import { SeasonStrip } from "../../parts/SeasonStrip";
import { Section, Stack } from "../../parts/Section";
import { DueTable } from "../season/DueTable";
import { sky } from "./skySamples";

/** The parts of Sky and Season, in every state. */
export function SkyParts() {
  const [picked, setPicked] = useState<number | null>(12);
  return (
    <>
      <Section title="How fresh, how fit, how near">
        <Stack>
          {sky.fresh.map((f) => (
            <FreshLine key={f.state} fresh={f} />
          ))}
          <p>
            {(["go", "mind", "wait", "no"] as const).map((v) => (
              <FitMark key={v} verdict={v} />
            ))}
          </p>
          <RiskBar share={0.4} peak={1.3} text="low today, over the threshold within the week" />
          <RiskBar share={1.6} peak={1.2} text="over the threshold" />
          <RiskBar share={null} peak={null} text="no value" />
        </Stack>
      </Section>
      <Section title="Season strip">
        <SeasonStrip strip={sky.strip} picked={picked} onPick={setPicked} />
      </Section>
      <Section title="Hours">
        <HourGrid hours={sky.hours} label="Made-up hours" />
      </Section>
      <Section title="Due">
        <DueTable lines={sky.due} />
      </Section>
      <Section title="A long series">
        <LongChart long={sky.long} />
      </Section>
    </>
  );
}
