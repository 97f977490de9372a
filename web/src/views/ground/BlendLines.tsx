import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { FaultText, Hint } from "../../parts/Field";
import { useFault } from "../../parts/faults";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

export interface BlendLine {
  grass: string;
  share: string;
}

export const NO_GRASS: BlendLine = { grass: "", share: "" };

/** The grasses of a mixed sward with their shares: 70 and 30. */
export function BlendLines({
  blend,
  grasses,
  onChange,
}: {
  blend: BlendLine[];
  grasses: Schemas["GrassOut"][];
  onChange: (blend: BlendLine[]) => void;
}) {
  const fault = useFault("blend");
  const set = (i: number, part: Partial<BlendLine>) =>
    onChange(blend.map((b, j) => (j === i ? { ...b, ...part } : b)));
  return (
    <Section title="Grasses of the mixed sward">
      <Stack $gap={14}>
        <Hint>
          It is judged by every grass in it: a label must list them all, and diseases of any of them are
          watched for.
        </Hint>
        {blend.map((b, i) => (
          <Line key={i} $columns="minmax(0, 3fr) minmax(0, 2fr)">
            <PickField
              label={`Grass ${i + 1}`}
              name={`blend.${i}.grass`}
              value={b.grass || null}
              options={grasses.map((g) => ({ key: g.key, text: g.name, note: g.botanical }))}
              onChange={(grass) => set(i, { grass })}
            />
            <TextField
              label="Share, %"
              name={`blend.${i}.share`}
              value={b.share}
              onChange={(share) => set(i, { share })}
              input={{ inputMode: "decimal" }}
              hint={i === blend.length - 1 ? "Empty: the rest." : undefined}
            />
            <Button
              aria-label={`Remove grass ${i + 1}`}
              onPress={() => onChange(blend.filter((_, j) => j !== i))}
            >
              Remove
            </Button>
          </Line>
        ))}
        {fault && <FaultText fault={fault} />}
        {blend.length < 5 && (
          <div>
            <Button onPress={() => onChange([...blend, NO_GRASS])}>Another grass</Button>
          </div>
        )}
      </Stack>
    </Section>
  );
}
