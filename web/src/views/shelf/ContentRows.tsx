import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Line } from "../../parts/Line";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { contentUnits } from "../../parts/units";
import { blankContent, type TypedContent } from "./typed";

interface Props {
  rows: TypedContent[];
  bases: Schemas["OptionOut"][];
  onChange: (rows: TypedContent[]) => void;
}

/** What is in the product: actives by their common names, nutrients as the label states them. */
export function ContentRows({ rows, bases, onChange }: Props) {
  const account = useAccount();
  const set = (i: number, part: Partial<TypedContent>) =>
    onChange(rows.map((r, j) => (j === i ? { ...r, ...part } : r)));
  return (
    <Stack $gap={14}>
      {rows.map((row, i) => (
        <Line key={i} $columns="minmax(0, 2fr) minmax(0, 3fr) minmax(0, 3fr) minmax(0, 2fr)">
          <PickField
            label="Kind of content"
            name={`contents.${i}.basis`}
            value={row.basis}
            options={bases}
            onChange={(basis) =>
              set(i, {
                basis,
                name: basis === "active" ? "" : (bases.find((b) => b.key === basis)?.text ?? ""),
              })
            }
          />
          <TextField
            label="Common name"
            name={`contents.${i}.name`}
            value={row.name}
            onChange={(name) => set(i, { name })}
            input={{ placeholder: row.basis === "active" ? "common name of the active" : "" }}
          />
          <QuantityField
            label="Amount"
            name={`contents.${i}.amount`}
            value={{ value: row.amount, unit: row.unit }}
            units={contentUnits(account.units)}
            onChange={({ value, unit }) => set(i, { amount: value, unit })}
          />
          {row.basis === "N" ? (
            <TextField
              label="of it slow, % of product"
              name={`contents.${i}.slow`}
              value={row.slow}
              onChange={(slow) => set(i, { slow })}
              input={{ inputMode: "decimal" }}
            />
          ) : (
            <span />
          )}
          <Button
            onPress={() => onChange(rows.filter((_, j) => j !== i))}
            aria-label={`Remove ${row.name || `line ${i + 1}`}`}
          >
            Remove
          </Button>
        </Line>
      ))}
      <div>
        <Button onPress={() => onChange([...rows, blankContent])}>Another active or nutrient</Button>
      </div>
    </Stack>
  );
}
