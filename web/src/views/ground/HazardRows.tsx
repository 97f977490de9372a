import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { distanceUnits } from "../../parts/units";
import type { TypedArea } from "./typedArea";

type Hazards = TypedArea["hazards"];

interface Props {
  hazards: Hazards;
  kinds: Schemas["OptionOut"][];
  onChange: (hazards: Hazards) => void;
}

/** What lies near an area and how far is kept away from it, a line each. */
export function HazardRows({ hazards, kinds, onChange }: Props) {
  const account = useAccount();
  const setHazard = (i: number, part: Partial<Hazards[number]>) =>
    onChange(hazards.map((h, j) => (j === i ? { ...h, ...part } : h)));
  return (
    <Stack $gap={14}>
      {hazards.map((h, i) => (
        <Line key={i} $columns="minmax(0, 2fr) minmax(0, 3fr) minmax(0, 3fr)">
          <PickField
            label="What"
            name={`hazards.${i}.kind`}
            value={h.kind}
            options={kinds}
            onChange={(kind) => setHazard(i, { kind })}
          />
          <TextField
            label="Where"
            name={`hazards.${i}.name`}
            value={h.name}
            onChange={(name) => setHazard(i, { name })}
          />
          <QuantityField
            label="Keep away"
            name={`hazards.${i}.buffer`}
            value={h.buffer}
            units={distanceUnits(account.units)}
            onChange={(buffer) => setHazard(i, { buffer })}
          />
          <Button
            aria-label={`Remove ${h.name || `line ${i + 1}`}`}
            onPress={() => onChange(hazards.filter((_, j) => j !== i))}
          >
            Remove
          </Button>
        </Line>
      ))}
      {hazards.length === 0 && <Hint>Drains, water, wells, neighbours, beds, paths.</Hint>}
      <div>
        <Button
          onPress={() =>
            onChange([
              ...hazards,
              { kind: "drain", name: "", buffer: { value: "", unit: account.units === "us" ? "ft" : "m" } },
            ])
          }
        >
          Another thing to keep off
        </Button>
      </div>
    </Stack>
  );
}
