import type { Programme, Step } from "../../../api/programme";
import { useStepOptions } from "../../../api/programme";
import { useAccount } from "../../../app/session";
import { DateField } from "../../../parts/DateField";
import { PickField } from "../../../parts/PickField";
import { QuantityField } from "../../../parts/QuantityField";
import { Fields } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";
import { temperatureUnits } from "../../../parts/units";
import { OVERSEED, type TypedStep } from "./stepForm";

interface Props {
  value: TypedStep;
  change: (part: Partial<TypedStep>) => void;
  programme: Programme;
  step?: Step;
}

const BEGIN: Partial<Record<TypedStep["timing"], string>> = {
  dated: "On",
  warmth: "Counted from",
  soil: "Counted from",
  cold: "Without weather on",
};

/** When a step is due: only the fields that its timing asks for. */
export function WhenFields({ value: v, change, programme, step }: Props) {
  const { units } = useAccount();
  const options = useStepOptions().data;
  const number = (label: string, name: keyof TypedStep, hint?: string) => (
    <TextField
      label={label}
      name={`when.${name}`}
      value={v[name] as string}
      onChange={(next) => change({ [name]: next })}
      hint={hint}
      input={{ inputMode: "decimal" }}
    />
  );
  const anchors = [
    { key: OVERSEED, text: "Overseeding", note: "The day on the area’s page" },
    ...programme.events.map((e) => ({ key: `event:${e.id}`, text: e.name, note: e.day })),
    ...programme.steps
      .filter((s) => s.id !== step?.id)
      .map((s) => ({ key: `step:${s.id}`, text: s.name, note: s.when_text })),
  ];
  return (
    <Fields $columns={4}>
      <PickField
        label="It goes by"
        name="when.timing"
        value={v.timing}
        options={options?.timings ?? []}
        onChange={(timing) => change({ timing: timing as TypedStep["timing"] })}
      />
      <DateField
        label={BEGIN[v.timing] ?? "From"}
        name="when.begin"
        value={v.begin}
        onChange={(begin) => change({ begin })}
      />
      {v.timing !== "dated" && (
        <DateField
          label={v.timing === "cold" ? "At the latest on" : "To"}
          name="when.end"
          value={v.end}
          onChange={(end) => change({ end })}
        />
      )}
      {v.timing === "every" && number("Every, days", "every")}
      {v.timing === "monthly" && number("Days of the month", "monthly", "1, 15 is twice a month")}
      {v.timing === "warmth" && (
        <>
          {number("Degree days, °C·d", "sum", "200 is usual for a regulator on a green")}
          {number("Over base, °C", "base")}
        </>
      )}
      {v.timing === "soil" && (
        <>
          <QuantityField
            label="Soil at 2 in (5 cm)"
            name="when.soil"
            value={v.soil}
            units={temperatureUnits(units)}
            onChange={(soil) => change({ soil })}
          />
          <PickField
            label="Passed"
            name="when.rising"
            value={v.rising}
            options={[
              { key: "up", text: "As it warms" },
              { key: "down", text: "As it cools" },
            ]}
            onChange={(rising) => change({ rising })}
          />
        </>
      )}
      {v.timing === "threshold" && (
        <>
          <PickField
            label="Disease"
            name="when.disease"
            value={v.disease || null}
            options={options?.diseases ?? []}
            onChange={(disease) => change({ disease })}
            placeholder="Pick a disease"
          />
          {number("Days apart at the least", "every", "By the watch of each area, under Sky")}
        </>
      )}
      {v.timing === "cold" && (
        <QuantityField
          label="Mean air of 10 days under"
          name="when.cold"
          value={v.cold}
          units={temperatureUnits(units)}
          onChange={(cold) => change({ cold })}
        />
      )}
      {v.timing === "event" && (
        <>
          {number("Days", "offset")}
          <PickField
            label="Before or after"
            name="when.side"
            value={v.side}
            options={[
              { key: "before", text: "Before" },
              { key: "after", text: "After" },
            ]}
            onChange={(side) => change({ side })}
          />
          <PickField
            label="Of what"
            name="anchor"
            value={v.goesBy || null}
            options={anchors}
            onChange={(goesBy) => change({ goesBy })}
            placeholder="Pick an event or a step"
          />
        </>
      )}
      {v.timing !== "window" && number("Late after, days", "grace")}
    </Fields>
  );
}
