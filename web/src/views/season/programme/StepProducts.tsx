import { useProductOptions, useProducts } from "../../../api/hooks";
import { Button } from "../../../parts/Button";
import { Line } from "../../../parts/Line";
import { PickField } from "../../../parts/PickField";
import { QuantityField } from "../../../parts/QuantityField";
import { Stack } from "../../../parts/Section";
import { noProduct, type TypedProduct } from "./stepForm";

const NONE = "none";

/** What a step puts down: the products of its mix with their rates, and what may stand in for the first. */
export function StepProducts({
  of,
  onChange,
}: {
  of: TypedProduct[];
  onChange: (next: TypedProduct[]) => void;
}) {
  const products = useProducts().data ?? [];
  const targets = useProductOptions().data?.targets ?? [];
  const set = (i: number, part: Partial<TypedProduct>) =>
    onChange(of.map((x, j) => (j === i ? { ...x, ...part } : x)));
  return (
    <Stack $gap={12}>
      {of.map((row, i) => {
        const product = products.find((p) => `${p.id}` === row.product);
        const units = [
          ...new Map(product?.rates.flatMap((r) => r.units).map((u) => [u.key, u]) ?? []).values(),
        ];
        return (
          <Line key={i} $columns="minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1.3fr) minmax(0, 1fr)">
            <PickField
              label={i ? `Product ${i + 1}` : "Product"}
              name={`products.${i}.product_id`}
              value={row.product || null}
              options={products.map((p) => ({ key: `${p.id}`, text: p.name, note: p.kind_text }))}
              onChange={(key) => {
                const picked = products.find((p) => `${p.id}` === key);
                set(i, {
                  product: key,
                  rate: { value: "", unit: picked?.rates[0]?.high.unit ?? "" },
                });
              }}
              placeholder="Pick one, or leave it open"
            />
            <PickField
              label={i ? `Target ${i + 1}` : "Target"}
              name={`products.${i}.target`}
              value={row.target || NONE}
              options={[{ key: NONE, text: "None" }, ...targets.map((x) => ({ key: x.key, text: x.text }))]}
              onChange={(target) => set(i, { target: target === NONE ? "" : target })}
            />
            {units.length > 0 ? (
              <QuantityField
                label={i ? `Rate ${i + 1}` : "Rate"}
                name={`products.${i}.rate`}
                value={row.rate}
                units={units}
                onChange={(rate) => set(i, { rate })}
                hint="Empty: by the house rule"
              />
            ) : (
              <span />
            )}
            {i > 0 ? (
              <PickField
                label={`Part ${i + 1}`}
                name={`products.${i}.instead`}
                value={row.instead ? "instead" : "with"}
                options={[
                  { key: "with", text: "In the mix" },
                  { key: "instead", text: "In place of the first" },
                ]}
                onChange={(part) => set(i, { instead: part === "instead" })}
              />
            ) : (
              <span />
            )}
            <Button
              isDisabled={of.length === 1}
              aria-label={`Remove ${product?.name ?? `product ${i + 1}`}`}
              onPress={() => onChange(of.filter((_, j) => j !== i))}
            >
              Remove
            </Button>
          </Line>
        );
      })}
      {of.length < 12 && (
        <div>
          <Button onPress={() => onChange([...of, noProduct])}>Another product</Button>
        </div>
      )}
    </Stack>
  );
}
