import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Line } from "../../parts/Line";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import type { TypedRules } from "./typed";

type Field = Schemas["RuleFieldOut"];

interface Props {
  fields: Field[];
  rules: TypedRules;
  onChange: (rules: TypedRules) => void;
}

/** The label's rules beside its rates, as the server's table lists them. What is left empty is not ruled. */
export function RuleFields({ fields, rules, onChange }: Props) {
  const sections = [...new Set(fields.map((f) => f.section))];
  return sections.map((section) => {
    const here = fields.filter((f) => f.section === section);
    return (
      <Section key={section} title={section}>
        <Fields $columns={here.length > 6 ? 4 : 3}>
          {here
            .filter((f) => f.kind !== "text" && f.kind !== "apart")
            .map((f) => (
              <RuleField key={f.key} field={f} rules={rules} onChange={onChange} />
            ))}
        </Fields>
        {here
          .filter((f) => f.kind === "text")
          .map((f) => (
            <div key={f.key} style={{ marginTop: 16 }}>
              <RuleField field={f} rules={rules} onChange={onChange} />
            </div>
          ))}
        {here.some((f) => f.kind === "apart") && <ApartRows rules={rules} onChange={onChange} />}
      </Section>
    );
  });
}

function RuleField({ field: f, rules, onChange }: Omit<Props, "fields"> & { field: Field }) {
  const name = `rules.${f.key}`;
  const text = rules.texts[f.key] ?? "";
  const change = (value: string) => onChange({ ...rules, texts: { ...rules.texts, [f.key]: value } });
  const hint = f.hint || undefined;
  switch (f.kind) {
    case "quantity":
      return (
        <QuantityField
          label={f.label}
          name={name}
          value={rules.quantities[f.key] ?? { value: "", unit: f.units[0]!.key }}
          units={f.units}
          onChange={(value) => onChange({ ...rules, quantities: { ...rules.quantities, [f.key]: value } })}
          hint={hint}
        />
      );
    case "leaf":
    case "helper":
    case "droplets":
      return (
        <PickField
          label={f.label}
          name={name}
          value={text || f.options[0]!.key}
          options={f.options}
          onChange={change}
        />
      );
    case "day":
      return <DateField label={f.label} name={name} value={text} onChange={change} />;
    default:
      return (
        <TextField
          label={f.label}
          name={name}
          value={text}
          onChange={change}
          lines={f.kind === "text"}
          hint={hint}
          input={{ placeholder: f.example, inputMode: f.kind === "count" ? "numeric" : undefined }}
        />
      );
  }
}

function ApartRows({ rules, onChange }: Omit<Props, "fields">) {
  const set = (apart: TypedRules["apart"]) => onChange({ ...rules, apart });
  return (
    <Stack $gap={12}>
      {rules.apart.map((row, i) => {
        const change = (part: Partial<typeof row>) =>
          set(rules.apart.map((r, j) => (j === i ? { ...r, ...part } : r)));
        return (
          <Line key={i} $columns="minmax(0, 3fr) minmax(0, 1fr) minmax(0, 4fr)">
            <TextField
              label="Product, active or group"
              name={`rules.incompatible.${i}.what`}
              value={row.what}
              onChange={(what) => change({ what, product_id: null })}
            />
            <TextField
              label="Days apart"
              name={`rules.incompatible.${i}.days`}
              value={row.days}
              onChange={(days) => change({ days })}
              input={{ inputMode: "numeric" }}
            />
            <TextField
              label="Why"
              name={`rules.incompatible.${i}.note`}
              value={row.note}
              onChange={(note) => change({ note })}
            />
            <Button
              aria-label={`Remove ${row.what || `line ${i + 1}`}`}
              onPress={() => set(rules.apart.filter((_, j) => j !== i))}
            >
              Remove
            </Button>
          </Line>
        );
      })}
      <div>
        <Button onPress={() => set([...rules.apart, { what: "", days: "0", note: "", product_id: null }])}>
          Another thing to keep apart
        </Button>
      </div>
    </Stack>
  );
}
