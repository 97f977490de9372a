import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { useCup } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Notice } from "../../parts/Notice";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { cupUnits, temperatureUnits, weightUnits } from "../../parts/units";
import { Working } from "../../parts/Working";

interface Props {
  /** Whose marks: what is typed is kept apart for each. */
  of: string;
  unit?: string;
  /** What may be done with a check that came out. */
  act?: (check: Schemas["CupIn"], forget: () => void) => ReactNode;
}

/** Is a mark true? By the weight of the water that fills the vessel to it. */
export function CupCheck({ of, unit, act }: Props) {
  const account = useAccount();
  const us = account.units === "us";
  const { value, change, clear } = useDraft(`${account.slug}/cup/${of}`, {
    mark: { value: "", unit: unit ?? (us ? "fl_oz" : "ml") },
    weight: { value: "", unit: "g" },
    temperature: { value: "", unit: us ? "degF" : "degC" },
  });
  const settled = useSettled(
    JSON.stringify(
      value.mark.value.trim() && value.weight.value.trim()
        ? { ...value, temperature: value.temperature.value.trim() ? value.temperature : null }
        : null,
    ),
    80,
  );
  const asked = JSON.parse(settled) as Schemas["CupIn"] | null;
  const cup = useCup(asked);
  const checked = asked && !cup.error ? cup.data : undefined;
  return (
    <Section title="Is a cup true?">
      <Hint style={{ marginBottom: 12 }}>
        Tare the cup, fill it with water to a mark on level ground, read at eye level, and weigh it.
      </Hint>
      <FaultsContext.Provider value={faultsOf(asked ? cup.error : null)}>
        <Fields $columns={3}>
          <QuantityField
            label="The mark says"
            name="mark"
            value={value.mark}
            units={cupUnits(account.units)}
            onChange={(mark) => change({ mark })}
          />
          <QuantityField
            label="Its water weighs"
            name="weight"
            value={value.weight}
            units={weightUnits(account.units)}
            onChange={(weight) => change({ weight })}
          />
          <QuantityField
            label="Water temperature"
            name="temperature"
            value={value.temperature}
            units={temperatureUnits(account.units)}
            onChange={(temperature) => change({ temperature })}
            hint="Empty: 20 °C."
          />
        </Fields>
      </FaultsContext.Provider>
      {checked && (
        <>
          <Notice tone={checked.good ? "note" : "caution"} word={checked.good ? "Good" : "Off"}>
            {checked.sentence}
          </Notice>
          {act?.(asked!, () =>
            clear({ ...value, mark: { ...value.mark, value: "" }, weight: { value: "", unit: "g" } }),
          )}
          <div style={{ marginTop: 16 }}>
            <Working steps={checked.working} />
          </div>
        </>
      )}
    </Section>
  );
}
