import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields } from "../../parts/Section";
import { StopWatch } from "../../parts/StopWatch";
import { TextField } from "../../parts/TextField";
import type { Bench, BenchField, Typed } from "./benches";

const Clocked = styled.div`
  display: grid;
  gap: 6px;
  justify-items: stretch;
`;

interface Props {
  bench: Bench;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
  options: Schemas["KitOptionsOut"] | undefined;
  machine: Schemas["MachineOut"];
}

/** What a bench asks beside its runs. */
export function BenchFields(p: Props) {
  return (
    <Fields $columns={3}>
      {p.bench.fields.map((f) => (
        <One key={f.key} field={f} {...p} />
      ))}
    </Fields>
  );
}

function One({ field: f, typed, change, options, machine }: Props & { field: BenchField }) {
  const account = useAccount();
  const products = useProducts().data ?? [];
  const value = typed.values[f.key] ?? "";
  const set = (v: string) => change({ values: { ...typed.values, [f.key]: v } });
  if (f.kind === "quantity")
    return (
      <QuantityField
        label={f.label}
        name={f.key}
        value={typed.quantities[f.key] ?? { value: "", unit: f.units!(account.units)[0]!.key }}
        units={f.units!(account.units)}
        onChange={(v) => change({ quantities: { ...typed.quantities, [f.key]: v } })}
        hint={f.hint}
      />
    );
  const text = (
    <TextField
      label={f.label}
      name={f.key}
      value={value}
      onChange={set}
      hint={f.hint}
      input={{ inputMode: "decimal" }}
    />
  );
  if (f.kind === "number") return text;
  if (f.kind === "clock")
    return (
      <Clocked>
        {text}
        <StopWatch of={f.label.toLowerCase()} onStop={(s) => set(`${s}`)} />
      </Clocked>
    );
  const lists = {
    product: products
      .filter((p) => machine.takes.includes(p.id))
      .map((p) => ({ key: `${p.id}`, text: p.name, note: p.kind_text })),
    course: (options?.courses ?? []).map((c) => ({ key: c.key, text: c.text })),
    size: [
      { key: "", text: "None" },
      ...(options?.sizes ?? []).map((s) => ({ key: s.key, text: s.text, note: s.flow })),
    ],
    way: [
      { key: "back_and_forth", text: "There and back", note: "Neighbouring passes face each other" },
      { key: "round", text: "Round and round", note: "All passes run the same way" },
    ],
  };
  return (
    <PickField
      label={f.label}
      name={f.key}
      value={value || (f.optional ? "" : null)}
      options={lists[f.kind]}
      onChange={set}
      hint={f.hint}
    />
  );
}
