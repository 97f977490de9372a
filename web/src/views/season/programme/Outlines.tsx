import { useState } from "react";
import { useAreas } from "../../../api/hooks";
import { useAdoptOutline, useStepOptions } from "../../../api/programme";
import { say } from "../../../app/toast";
import { Button } from "../../../parts/Button";
import { Facts } from "../../../parts/Facts";
import { Hint } from "../../../parts/Field";
import { FaultsContext, faultsOf } from "../../../parts/faults";
import { ManyField } from "../../../parts/ManyField";
import { Fault } from "../../../parts/Notice";
import { PickField } from "../../../parts/PickField";
import { Bar, Fields, Section } from "../../../parts/Section";
import { areaGroups, areaOptions } from "../../reckon/state";

/** Outlines to start a year from: each with its steps and where it is from. */
export function Outlines({ year }: { year: number }) {
  const options = useStepOptions();
  const areas = useAreas().data?.areas ?? [];
  const adopt = useAdoptOutline();
  const [key, setKey] = useState("");
  const [ground, setGround] = useState<string[]>([]);
  const outlines = options.data?.outlines ?? [];
  const outline = outlines.find((o) => o.key === key) ?? outlines[0];
  if (!outline) return null;
  return (
    <Section title="Start from an outline">
      <FaultsContext.Provider value={faultsOf(adopt.error)}>
        <Fields $columns={2}>
          <PickField
            label="Outline"
            name="key"
            value={outline.key}
            options={outlines.map((o) => ({
              key: o.key,
              text: o.name,
              note: o.fits ? o.told : "None of your ground is of its kind",
            }))}
            onChange={setKey}
          />
          <ManyField
            label="On"
            name="area_ids"
            values={ground}
            options={areaOptions(areas)}
            groups={areaGroups(areas)}
            onChange={setGround}
            none="All ground of its kind"
          />
        </Fields>
        <div style={{ marginTop: 12 }}>
          <Facts of={outline.steps.map((s) => [s.name, s.text])} />
        </div>
        <Hint style={{ marginTop: 8 }}>
          {outline.source} The label, the soil test and the place come first. Each step takes the first
          product of the shelf that is of its kind; change what is not meant.
        </Hint>
        <Bar style={{ marginTop: 10 }}>
          <Button
            isDisabled={adopt.isPending}
            onPress={() =>
              adopt.mutate(
                { key: outline.key, year, area_ids: ground.map(Number) },
                { onSuccess: () => say(`${outline.name}: its steps stand in ${year}.`) },
              )
            }
          >
            {`Take it over into ${year}`}
          </Button>
        </Bar>
        <Fault error={adopt.error} besides={["key", "area_ids"]} />
      </FaultsContext.Provider>
    </Section>
  );
}
