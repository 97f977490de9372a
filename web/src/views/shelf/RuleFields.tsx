import type { ReactNode } from "react";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import {
  dayUnits,
  depthUnits,
  distanceUnits,
  hourUnits,
  temperatureUnits,
  windUnits,
} from "../../parts/units";
import { ruleQuantities, type RuleQuantity, type TypedRules } from "./typed";

interface Props {
  rules: TypedRules;
  onChange: (rules: TypedRules) => void;
}

/** The label's rules beside its rates. What is left empty is not ruled. */
export function RuleFields({ rules, onChange }: Props) {
  const account = useAccount();
  const change = (part: Partial<TypedRules>) => onChange({ ...rules, ...part });
  const units = {
    temperature: temperatureUnits(account.units),
    wind: windUnits(account.units),
    hours: hourUnits,
    minutes: hourUnits,
    depth: depthUnits(account.units),
    days: dayUnits,
    distance: distanceUnits(account.units),
  };
  const quantity = (name: RuleQuantity, label: string, hint?: ReactNode) => (
    <QuantityField
      label={label}
      name={`rules.${name}`}
      value={rules.quantities[name]}
      units={units[ruleQuantities[name]]}
      onChange={(value) => change({ quantities: { ...rules.quantities, [name]: value } })}
      hint={hint}
    />
  );
  const text = (
    name: "most_per_application" | "most_per_season" | "active_per_season" | "reentry_note",
    label: string,
    placeholder = "",
  ) => (
    <TextField
      label={label}
      name={`rules.${name}`}
      value={rules[name]}
      onChange={(value) => change({ [name]: value })}
      input={{ placeholder }}
    />
  );
  return (
    <>
      <Section title="How much, how often">
        <Fields $columns={3}>
          {text("most_per_application", "Most at once", "2 fl oz per 1,000 sq ft")}
          {text("most_per_season", "Most product a season", "9 fl oz per 1,000 sq ft")}
          {text("active_per_season", "Most active a season", "2.5 lb ai per acre")}
          <TextField
            label="Applications a season"
            name="rules.applications_per_season"
            value={rules.applications_per_season}
            onChange={(applications_per_season) => change({ applications_per_season })}
            input={{ inputMode: "numeric" }}
          />
          <TextField
            label="In a row of its group"
            name="rules.consecutive"
            value={rules.consecutive}
            onChange={(consecutive) => change({ consecutive })}
            input={{ inputMode: "numeric" }}
          />
          <DateField
            label="Label revised on"
            name="rules.revised"
            value={rules.revised}
            onChange={(revised) => change({ revised })}
          />
        </Fields>
      </Section>
      <Section title="When: weather, leaf, water">
        <Fields $columns={4}>
          {quantity("temperature_low", "Air at least")}
          {quantity("temperature_high", "Air at most")}
          {quantity("wind_low", "Wind at least")}
          {quantity("wind_high", "Wind at most")}
          <PickField
            label="Leaf"
            name="rules.leaf"
            value={rules.leaf}
            options={[
              { key: "either", text: "Dry or wet" },
              { key: "dry", text: "Dry" },
              { key: "wet", text: "Wet" },
            ]}
            onChange={(leaf) => change({ leaf })}
          />
          {quantity("rain_before", "Dry before it, for")}
          {quantity("rain_after", "No rain after it, for")}
          <span />
          {quantity("water_in_delay", "Water in within", "How long after it the water may come.")}
          {quantity("water_in_depth", "with this much", "The depth of water.")}
          {quantity("water_in_time", "or for this long", "Where the label gives a time.")}
        </Fields>
      </Section>
      <Section title="Mowing, seed, people, water nearby">
        <Fields $columns={4}>
          {quantity("mow_before", "Mow no later than, before")}
          {quantity("mow_after", "Do not mow for, after")}
          {quantity("bag_clippings", "Keep clippings off food for")}
          <span />
          {quantity("seed_before", "Between it and later seed")}
          {quantity("seed_after", "After seeding, wait")}
          {quantity("buffer", "Keep from water")}
          {quantity("mixed_life", "Use the mix within")}
          {quantity("reentry", "Keep off for")}
          {text("reentry_note", "Keeping off, in the label’s words", "Keep off until dry")}
        </Fields>
        <div style={{ marginTop: 16 }}>
          <TextField
            label="Filling, in the label’s words"
            name="rules.fill_note"
            lines
            value={rules.fill_note}
            onChange={(fill_note) => change({ fill_note })}
          />
        </div>
      </Section>
      <Section title="What it must not meet">
        <Stack $gap={12}>
          {rules.incompatible.map((row, i) => {
            const set = (part: Partial<typeof row>) =>
              change({ incompatible: rules.incompatible.map((r, j) => (j === i ? { ...r, ...part } : r)) });
            return (
              <Line key={i} $columns="minmax(0, 3fr) minmax(0, 1fr) minmax(0, 4fr)">
                <TextField
                  label="Product, active or group"
                  name={`rules.incompatible.${i}.what`}
                  value={row.what}
                  onChange={(what) => set({ what })}
                />
                <TextField
                  label="Days apart"
                  name={`rules.incompatible.${i}.days`}
                  value={row.days}
                  onChange={(days) => set({ days })}
                  input={{ inputMode: "numeric" }}
                />
                <TextField
                  label="Why"
                  name={`rules.incompatible.${i}.note`}
                  value={row.note}
                  onChange={(note) => set({ note })}
                />
                <Button
                  aria-label={`Leave out ${row.what || `line ${i + 1}`}`}
                  onPress={() => change({ incompatible: rules.incompatible.filter((_, j) => j !== i) })}
                >
                  Leave out
                </Button>
              </Line>
            );
          })}
          <div>
            <Button
              onPress={() =>
                change({ incompatible: [...rules.incompatible, { what: "", days: "0", note: "" }] })
              }
            >
              Another thing to keep apart
            </Button>
          </div>
        </Stack>
      </Section>
    </>
  );
}
