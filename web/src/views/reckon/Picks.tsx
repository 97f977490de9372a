import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { ManyField } from "../../parts/ManyField";
import { PickField } from "../../parts/PickField";
import { ProductPick } from "./ProductPick";
import { areaGroups, areaOptions, partOf, type Picked, type Product } from "./state";

const Crossing = styled.div`
  max-width: 260px;
  margin-top: 12px;
`;
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
  change: (part: Partial<Picked> | ((now: Picked) => Partial<Picked>)) => void;
  products: Product[] | undefined;
  areas: Schemas["AreaOut"][] | undefined;
  machines: Schemas["MachineOut"][] | undefined;
  targets: Schemas["TargetOut"][] | undefined;
}

/** Which machines are not offered for a mix, and why. */
function leftOut(left: Schemas["MachineOut"][], mix: Product[]): string {
  const names = left.length > 2 ? `${left.length} machines` : left.map((m) => m.name).join(" and ");
  const first = mix[0];
  const how = first?.sprayed ? "sprayed" : "spread dry";
  return `Not offered: ${names}. ${first?.name ?? "It"} is ${how}.`;
}

/** What, for what, where and with what. */
export function Picks({ picked, change, products = [], areas = [], machines = [], targets = [] }: Props) {
  const mixed = picked.mix.map((c) => c.product).filter((id) => id !== null);
  const fitting = machines.filter((m) => mixed.every((id) => m.takes.includes(id)));
  const left = machines.filter((m) => !fitting.includes(m));
  const pickAreas = (keys: string[]) => {
    const ids = areas.filter((a) => keys.includes(`${a.id}`)).map((a) => a.id);
    change({
      parts: ids.flatMap((id) => {
        const kept = picked.parts.filter((p) => p.area === id);
        return kept.length ? kept : [partOf(id, picked.mix)];
      }),
    });
  };
  return (
    <>
      <Grid>
        <ProductPick place={0} picked={picked} change={change} products={products} targets={targets} />
        <ManyField
          label="Areas"
          name="parts"
          values={[...new Set(picked.parts.map((p) => `${p.area}`))]}
          options={areaOptions(areas)}
          groups={areaGroups(areas)}
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
          hint={
            left.length
              ? leftOut(
                  left,
                  products.filter((p) => mixed.includes(p.id)),
                )
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
      {picked.passes > 1 && (
        <Crossing>
          <PickField
            label={picked.passes > 2 ? "Each further pass" : "The second pass"}
            name="crossing"
            value={picked.crossing ?? ""}
            options={[
              { key: "", text: "None" },
              { key: "crosswise", text: "Crosswise" },
              { key: "diagonal", text: "Diagonal" },
              { key: "offset", text: "Offset by half a swath" },
            ]}
            onChange={(key) => change({ crossing: key as Picked["crossing"] })}
          />
        </Crossing>
      )}
    </>
  );
}
