import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import type { Option } from "../../parts/PickField";
import { Line } from "../../parts/Line";
import { QuantityField } from "../../parts/QuantityField";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { blankPackage, type TypedPackage } from "./typed";

interface Props {
  rows: TypedPackage[];
  units: Option[];
  onChange: (rows: TypedPackage[]) => void;
}

/** The sizes that it is sold in, and what each costs. */
export function PackageRows({ rows, units, onChange }: Props) {
  const account = useAccount();
  const set = (i: number, part: Partial<TypedPackage>) =>
    onChange(rows.map((r, j) => (j === i ? { ...r, ...part } : r)));
  return (
    <Stack $gap={12}>
      {rows.map((row, i) => (
        <Line key={i} $columns="minmax(0, 3fr) minmax(0, 2fr)">
          <QuantityField
            label="Package"
            name={`packages.${i}.value`}
            value={{ value: row.value, unit: row.unit }}
            units={units}
            onChange={({ value, unit }) => set(i, { value, unit })}
          />
          <TextField
            label={`Price of a package, ${account.currency}`}
            name={`packages.${i}.price`}
            value={row.price}
            onChange={(price) => set(i, { price })}
            input={{ inputMode: "decimal" }}
          />
          {rows.length > 1 ? (
            <Button
              aria-label={`Remove package ${i + 1}`}
              onPress={() => onChange(rows.filter((_, j) => j !== i))}
            >
              Remove
            </Button>
          ) : (
            <span />
          )}
        </Line>
      ))}
      <div>
        <Button onPress={() => onChange([...rows, blankPackage(units[0]!.key)])}>Another package</Button>
      </div>
    </Stack>
  );
}
