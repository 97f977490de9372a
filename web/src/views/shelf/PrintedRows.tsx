import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

type Printed = Schemas["PrintedIn"];

const forms: { key: Printed["form"]; text: string }[] = [
  { key: "broadcast", text: "Broadcast spreader" },
  { key: "drop", text: "Drop spreader" },
  { key: "hand_held", text: "Hand-held spreader" },
];

/** The settings that the bag prints, a kind of spreader each: where to start, and no test of any machine. */
export function PrintedRows({ rows, onChange }: { rows: Printed[]; onChange: (rows: Printed[]) => void }) {
  const set = (i: number, part: Partial<Printed>) =>
    onChange(rows.map((r, j) => (j === i ? { ...r, ...part } : r)));
  return (
    <Stack $gap={12}>
      <Hint>
        A setting on the bag is for a kind of spreader and a pace of its own. It is told as printed until the
        product is tested in yours.
      </Hint>
      {rows.map((row, i) => (
        <Line key={i} $columns="minmax(0, 2fr) minmax(0, 1fr)">
          <PickField
            label="Printed for"
            name={`printed.${i}.form`}
            value={row.form}
            options={forms}
            onChange={(form) => set(i, { form: form as Printed["form"] })}
          />
          <TextField
            label="Setting"
            name={`printed.${i}.setting`}
            value={row.setting}
            onChange={(setting) => set(i, { setting })}
          />
          <Button
            onPress={() => onChange(rows.filter((_, j) => j !== i))}
            aria-label={`Remove setting ${row.setting || i + 1}`}
          >
            Remove
          </Button>
        </Line>
      ))}
      <div>
        <Button onPress={() => onChange([...rows, { form: "broadcast", setting: "" }])}>
          {rows.length ? "Another printed setting" : "A printed setting"}
        </Button>
      </div>
    </Stack>
  );
}
