import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { ManyField } from "../../parts/ManyField";
import { PickField } from "../../parts/PickField";
import { areaOptions, partOf, productOptions, unmatched, type Picked, type Product } from "./state";

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 4fr) minmax(0, 4fr) minmax(0, 4fr) minmax(0, 2fr);
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
  targets: Schemas["TargetOut"][] | undefined;
}

/** What, for what, where and with what. */
export function Picks({ picked, change, products = [], areas = [], machines = [], targets = [] }: Props) {
  const product = products.find((p) => p.id === picked.product);
  const fitting = product ? machines.filter((m) => m.takes.includes(product.id)) : machines;
  const listed = targets.filter((x) => product?.targets.includes(x.key));
  const others = targets.filter((x) => !product?.targets.includes(x.key));
  const pickAreas = (keys: string[]) => {
    const ids = areas.filter((a) => keys.includes(`${a.id}`)).map((a) => a.id);
    change({
      parts: ids.flatMap((id) => {
        const kept = picked.parts.filter((p) => p.area === id);
        return kept.length ? kept : [partOf(id)];
      }),
    });
  };
  return (
    <Grid>
      <PickField
        label="Product"
        name="product"
        value={picked.product === null ? null : `${picked.product}`}
        options={productOptions(products)}
        onChange={(key) => change({ product: Number(key), parts: unmatched(picked.parts) })}
      />
      <PickField
        label="For"
        name="target"
        value={picked.target}
        options={[
          { key: "", text: "Not said" },
          ...listed.map((x) => ({ key: x.key, text: x.text, note: "on this label" })),
          ...others.map((x) => ({ key: x.key, text: x.text, note: x.kind })),
        ]}
        onChange={(target) => change({ target, parts: unmatched(picked.parts) })}
      />
      <ManyField
        label="Areas"
        name="parts"
        values={[...new Set(picked.parts.map((p) => `${p.area}`))]}
        options={areaOptions(areas)}
        onChange={pickAreas}
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
        hint={product && fitting.length === 0 ? "Nothing in the kit can put it down yet." : undefined}
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
