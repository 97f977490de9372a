import { ApiError } from "../../api/client";
import { usePhrase } from "../../api/hooks";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { FaultText, Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { blankRate, type TypedRate } from "./typed";

function RateRow({
  i,
  row,
  set,
  remove,
}: {
  i: number;
  row: TypedRate;
  set: (row: TypedRate) => void;
  remove?: () => void;
}) {
  const phrase = useSettled(row.phrase, 150);
  const { data, error } = usePhrase(phrase);
  const asked = error instanceof ApiError ? error.fields[0] : undefined;
  const pick = (text: string) => set({ ...row, phrase: text });
  return (
    <Line $columns="minmax(0, 3fr) minmax(0, 2fr)">
      <div>
        <TextField
          label="Rate, as printed"
          name={`rates.${i}.phrase`}
          value={row.phrase}
          onChange={pick}
          onPick={pick}
          input={{ placeholder: "0.35 to 0.55 fl oz per 1,000 sq ft", spellCheck: false }}
        />
        <div aria-live="polite">
          {phrase.trim() && asked && <FaultText fault={asked} onPick={pick} />}
          {phrase.trim() && data && !error && (
            <Hint>
              Understood: {data.understood}
              {data.also.length > 0 && `; that is ${data.also.join(" or ")}`}
            </Hint>
          )}
        </div>
      </div>
      <TextField
        label="For what"
        name={`rates.${i}.use`}
        value={row.use}
        onChange={(use) => set({ ...row, use })}
        input={{ placeholder: "target, grass, height, preventive …" }}
      />
      {remove && (
        <Button onPress={remove} aria-label={`Leave out rate ${i + 1}`}>
          Leave out
        </Button>
      )}
    </Line>
  );
}

/** The label's rates, each as printed and each read back at once. */
export function RateRows({ rows, onChange }: { rows: TypedRate[]; onChange: (rows: TypedRate[]) => void }) {
  return (
    <Stack $gap={14} data-field="rates">
      {rows.map((row, i) => (
        <RateRow
          key={i}
          i={i}
          row={row}
          set={(next) => onChange(rows.map((r, j) => (j === i ? next : r)))}
          remove={rows.length > 1 ? () => onChange(rows.filter((_, j) => j !== i)) : undefined}
        />
      ))}
      <div>
        <Button onPress={() => onChange([...rows, blankRate])}>Another rate</Button>
      </div>
    </Stack>
  );
}
