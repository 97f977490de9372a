import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { DayOfYear } from "./DayOfYear";

type Closed = Schemas["ClosedIn"];

const winter: Closed = { what: "N", start: { month: 12, day: 1 }, end: { month: 3, day: 1 }, why: "" };

/** The times of year in which a nutrient may not go down here. */
export function ClosedTimes({ value, onChange }: { value: Closed[]; onChange: (closed: Closed[]) => void }) {
  return (
    <Section title="Closed months">
      <Hint style={{ marginBottom: 12 }}>
        Where local law closes nitrogen or phosphorus for a part of the year, say so: such plans are refused
        here.
      </Hint>
      <Stack $gap={14}>
        {value.map((c, i) => {
          const set = (part: Partial<Closed>) =>
            onChange(value.map((x, j) => (j === i ? { ...x, ...part } : x)));
          return (
            <Line key={i} $columns="minmax(0, 2fr) minmax(0, 4fr) minmax(0, 4fr) minmax(0, 3fr)">
              <PickField
                label="Closed"
                name={`closed.${i}.what`}
                value={c.what}
                options={[
                  { key: "N", text: "N" },
                  { key: "P2O5", text: "P₂O₅" },
                ]}
                onChange={(what) => set({ what })}
              />
              <DayOfYear
                label="From"
                name={`closed.${i}.start`}
                value={c.start}
                onChange={(start) => set({ start })}
              />
              <DayOfYear label="To" name={`closed.${i}.end`} value={c.end} onChange={(end) => set({ end })} />
              <TextField
                label="By what"
                name={`closed.${i}.why`}
                value={c.why ?? ""}
                onChange={(why) => set({ why })}
              />
              <Button
                aria-label={`Remove closed time ${i + 1}`}
                onPress={() => onChange(value.filter((_, j) => j !== i))}
              >
                Remove
              </Button>
            </Line>
          );
        })}
        <div>
          <Button onPress={() => onChange([...value, winter])}>Another closed time</Button>
        </div>
      </Stack>
    </Section>
  );
}
