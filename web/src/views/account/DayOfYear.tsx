import type { Schemas } from "../../api/client";
import { PickField } from "../../parts/PickField";
import { Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

const months = [...Array(12).keys()].map((i) => ({
  key: `${i + 1}`,
  text: new Date(2001, i, 1).toLocaleString("en", { month: "long" }),
}));

interface Props {
  label: string;
  name: string;
  value: Schemas["DayOut"];
  onChange: (day: Schemas["DayOut"]) => void;
}

/** A day of any year. */
export function DayOfYear({ label, name, value, onChange }: Props) {
  return (
    <Fields>
      <TextField
        label={`${label}, day`}
        name={name}
        value={`${value.day || ""}`}
        onChange={(day) => onChange({ ...value, day: Number(day.replace(/\D/g, "")) || 0 })}
        input={{ inputMode: "numeric" }}
      />
      <PickField
        label="of"
        name={`${name}-month`}
        value={`${value.month}`}
        options={months}
        onChange={(month) => onChange({ ...value, month: Number(month) })}
      />
    </Fields>
  );
}
