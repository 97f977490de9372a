import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { PickField } from "../../parts/PickField";
import type { Picked, Product } from "./state";

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 4fr) minmax(0, 4fr) minmax(0, 2fr);
  gap: 12px 16px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  picked: Picked;
  change: (part: Partial<Picked>) => void;
  products: Product[] | undefined;
  areas: Schemas["AreaOut"][] | undefined;
  machines: Schemas["MachineOut"][] | undefined;
}

/** What, where and with what. */
export function Picks({ picked, change, products = [], areas = [], machines = [] }: Props) {
  const product = products.find((p) => p.id === picked.product);
  const fitting = product ? machines.filter((m) => (m.kind === "sprayer") === product.sprayed) : machines;
  const pick = (key: string) => {
    const next = products.find((p) => `${p.id}` === key);
    const row = next?.rates[0];
    change({ product: Number(key), row: row?.id ?? null, rate: start(row) });
  };
  return (
    <Grid>
      <PickField
        label="Product"
        name="product"
        value={picked.product === null ? null : `${picked.product}`}
        options={products.map((p) => ({
          key: `${p.id}`,
          text: p.name,
          note: `${p.kind_text}, ${p.formulation_text}`,
        }))}
        onChange={pick}
      />
      <PickField
        label="Area"
        name="area"
        value={picked.area === null ? null : `${picked.area}`}
        options={areas.map((a) => ({
          key: `${a.id}`,
          text: a.name,
          note: `${a.size.text}, ${a.grass_name}`,
        }))}
        onChange={(key) => change({ area: Number(key) })}
      />
      <PickField
        label="Machine"
        name="machine"
        value={picked.machine === null ? null : `${picked.machine}`}
        options={fitting.map((m) => ({
          key: `${m.id}`,
          text: m.name,
          note: `${m.kind}, ${m.capacity.text}`,
        }))}
        onChange={(key) => change({ machine: Number(key) })}
        hint={
          product && fitting.length === 0
            ? `No ${product.sprayed ? "sprayer" : "spreader"} in the kit yet.`
            : undefined
        }
      />
      <PickField
        label="Passes"
        name="passes"
        value={`${picked.passes}`}
        options={[1, 2, 3, 4].map((n) => ({
          key: `${n}`,
          text: `${n}`,
          note: n > 1 ? `the dose in ${n} parts` : undefined,
        }))}
        onChange={(key) => change({ passes: Number(key) })}
      />
    </Grid>
  );
}

/** Where a rate row's rule opens. */
export function start(row: Product["rates"][number] | undefined) {
  return row ? { value: row.start.exact, unit: row.start.unit } : { value: "", unit: "" };
}
