import type { Schemas } from "../../api/client";
import { PickField } from "../../parts/PickField";
import { productOptions, withComponent, type Picked, type Product } from "./state";

interface Props {
  place: number;
  picked: Picked;
  change: (part: (now: Picked) => Partial<Picked>) => void;
  products: Product[];
  targets: Schemas["TargetOut"][];
}

/** One product of the mix, and what it is for. */
export function ProductPick({ place, picked, change, products, targets }: Props) {
  const component = picked.mix[place]!;
  const product = products.find((p) => p.id === component.product);
  const listed = targets.filter((x) => product?.targets.includes(x.key));
  const others = targets.filter((x) => !product?.targets.includes(x.key));
  const nth = place ? ` ${place + 1}` : "";
  const taken = picked.mix.map((c, i) => (i === place ? null : c.product));
  return (
    <>
      <PickField
        label={`Product${nth}`}
        name={`mix.${place}.product_id`}
        value={component.product === null ? null : `${component.product}`}
        options={productOptions(products.filter((p) => !taken.includes(p.id)))}
        onChange={(key) => {
          const found = products.find((p) => `${p.id}` === key);
          const taste = found?.kind === "colourant" && picked.mix.length > 1;
          change((now) => withComponent(now, place, { product: Number(key), target: "", taste }));
        }}
      />
      <PickField
        label={`Target${nth}`}
        name={`mix.${place}.target`}
        value={component.target}
        options={[
          { key: "", text: "None" },
          ...listed.map((x) => ({ key: x.key, text: x.text, note: "on this label" })),
          ...others.map((x) => ({ key: x.key, text: x.text, note: x.kind })),
        ]}
        onChange={(target) => change((now) => withComponent(now, place, { target }))}
      />
    </>
  );
}
