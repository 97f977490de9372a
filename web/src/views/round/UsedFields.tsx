import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { doseUnits } from "../../parts/units";
import { LotPick } from "./LotPick";

/** What was used of one product of a mix, as typed; `lot` is a lot's number in the shelf. */
export interface TypedUse {
  amount: TypedQuantity;
  lot: string;
}

/** A product of a mix with what was planned of it; nothing to taste. */
export interface Mixed {
  product_id: number;
  product: string;
  planned: Schemas["QuantityOut"] | null;
  /** What was measured for all loads together, once it was for each. */
  poured?: Schemas["QuantityOut"] | null;
}

/** What is typed before anybody has: what was measured at the tank, else as planned. */
export const asPlanned = (mix: Mixed[]): TypedUse[] =>
  mix.map((c) => {
    const found = c.poured ?? c.planned;
    return { amount: { value: found?.number.replaceAll(",", "") ?? "", unit: found?.unit ?? "" }, lot: "" };
  });

/** What was typed as the API takes it. */
export const usedIn = (used: TypedUse[]): Schemas["UsedIn"][] =>
  used.map((u) => ({
    amount: u.amount.value.trim() ? u.amount : null,
    lot_id: u.lot ? Number(u.lot) : null,
    lot: "",
  }));

interface Props {
  mix: Mixed[];
  used: TypedUse[];
  onChange: (used: TypedUse[]) => void;
  /** Said under the field of a job on several grounds. */
  hint?: string;
  lots?: boolean;
}

/** What was really used of each product, and the lot that it was from. */
export function UsedFields({ mix, used, onChange, hint, lots = true }: Props) {
  const { units } = useAccount();
  const products = useProducts().data ?? [];
  const set = (c: number, part: Partial<TypedUse>) =>
    onChange(used.map((u, i) => (i === c ? { ...u, ...part } : u)));
  const only = mix.length === 1;
  return (
    <>
      {mix.map((c, i) => {
        const card = products.find((p) => p.id === c.product_id);
        const liquid = c.planned
          ? doseUnits(units, true).some((u) => u.key === c.planned!.unit)
          : card?.liquid;
        const list = doseUnits(units, liquid ?? true);
        const typed = used[i] ?? { amount: { value: "", unit: "" }, lot: "" };
        return [
          <QuantityField
            key={c.product_id}
            label={only ? "Product used" : `${c.product} used`}
            name={`used.${i}.amount`}
            value={typed.amount.unit ? typed.amount : { ...typed.amount, unit: list[0]!.key }}
            units={list}
            onChange={(amount) => set(i, { amount })}
            hint={
              c.poured
                ? "As it was measured at the tank."
                : c.planned
                  ? hint
                  : "It went in to taste: may stay empty."
            }
          />,
          lots && (
            <LotPick
              key={`${c.product_id} lot`}
              label={only ? "Taken from lot" : `Lot of ${c.product}`}
              name={`used.${i}.lot_id`}
              lots={card?.lots ?? []}
              value={typed.lot}
              onChange={(lot) => set(i, { lot })}
            />
          ),
        ];
      })}
    </>
  );
}
