import { api, read, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useClub } from "../../app/session";
import { CardForm } from "../../parts/CardForm";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { densityUnits, packageUnits } from "../../parts/units";
import { ContentRows } from "./ContentRows";
import { RateRows } from "./RateRows";
import { toProductIn, typedProduct, type Product } from "./typed";

const placed = [
  "name", "kind", "formulation", "group_code", "rates", "contents", "density", "package", "price", "note",
]; // prettier-ignore

/** A product's label card as a form. What is half typed survives a reload. */
export function ProductForm({
  product,
  options,
}: {
  product?: Product;
  options: Schemas["ShelfOptionsOut"];
}) {
  const club = useClub();
  const draft = useDraft(
    `${club.slug}/product/${product?.id ?? "new"}`,
    typedProduct(product, club.units === "us"),
  );
  const { value, change } = draft;
  const save = useChange((path, body: Schemas["ProductIn"]) =>
    product
      ? read(
          api.PUT("/api/clubs/{club}/products/{product_id}", {
            params: { path: { ...path, product_id: product.id } },
            body,
          }),
        )
      : read(api.POST("/api/clubs/{club}/products", { params: { path }, body })),
  );
  const remove = useChange((path, product_id: number) =>
    read(
      api.DELETE("/api/clubs/{club}/products/{product_id}", { params: { path: { ...path, product_id } } }),
    ),
  );
  const putBack = useChange((path, product_id: number) =>
    read(
      api.POST("/api/clubs/{club}/products/{product_id}/put-back", {
        params: { path: { ...path, product_id } },
      }),
    ),
  );
  const made = options.formulations.find((f) => f.key === value.formulation);
  const units = packageUnits(club.units, made?.liquid ?? false);
  const formulate = (formulation: string) => {
    const next = packageUnits(
      club.units,
      options.formulations.find((f) => f.key === formulation)?.liquid ?? false,
    );
    const fits = next.some((u) => u.key === value.package.unit);
    change({ formulation, package: fits ? value.package : { ...value.package, unit: next[0]!.key } });
  };
  return (
    <Page
      sentence={
        product ? `${product.name}, from its label.` : "A new product: take its label and copy what it says."
      }
    >
      <CardForm
        what="product"
        place="shelf"
        card={product}
        add="Put it on the shelf"
        added="is on the shelf"
        body={() => toProductIn(value)}
        save={save}
        remove={remove}
        putBack={putBack}
        draft={draft}
        placed={placed}
      >
        {product?.warnings.map((w) => (
          <Notice key={w} tone="caution">
            {w}
          </Notice>
        ))}
        <Section title="What it is">
          <Fields $columns={4}>
            <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
            <PickField
              label="Type"
              name="kind"
              value={value.kind || null}
              options={options.kinds}
              onChange={(kind) => change({ kind })}
            />
            <PickField
              label="Formulation"
              name="formulation"
              value={value.formulation || null}
              options={options.formulations}
              onChange={formulate}
            />
            <TextField
              label="Group code"
              name="group_code"
              value={value.group_code}
              onChange={(group_code) => change({ group_code })}
              input={{ placeholder: "FRAC 12, HRAC 4 …" }}
            />
          </Fields>
        </Section>
        <Section title="Its rates">
          <RateRows rows={value.rates} onChange={(rates) => change({ rates })} />
        </Section>
        <Section title="What is in it">
          <ContentRows
            rows={value.contents}
            bases={options.bases}
            onChange={(contents) => change({ contents })}
          />
        </Section>
        <Section title="Weight, package and price">
          <Fields $columns={3}>
            <QuantityField
              label="Density"
              name="density"
              value={value.density}
              units={densityUnits(club.units)}
              onChange={(density) => change({ density })}
              hint="For liquids: weight per gallon or per litre, as the label says."
            />
            <QuantityField
              label="Package"
              name="package"
              value={value.package}
              units={units}
              onChange={(size) => change({ package: size })}
            />
            <TextField
              label={`Price of a package, ${club.currency}`}
              name="price"
              value={value.price}
              onChange={(price) => change({ price })}
              input={{ inputMode: "decimal" }}
            />
          </Fields>
        </Section>
        <Section title="What to wear, and what to know">
          <Fields $columns={3}>
            <TextField
              label="Worn for mixing"
              name="ppe_mixing"
              lines
              value={value.ppe_mixing}
              onChange={(ppe_mixing) => change({ ppe_mixing })}
              hint="A line each, from the label. Left empty, the usual least is shown."
            />
            <TextField
              label="Worn for applying"
              name="ppe_applying"
              lines
              value={value.ppe_applying}
              onChange={(ppe_applying) => change({ ppe_applying })}
            />
            <div>
              <TextField
                label="Note"
                name="note"
                lines
                value={value.note}
                onChange={(note) => change({ note })}
              />
              <Switch value={value.stains} onChange={(stains) => change({ stains })}>
                It stains stone, paint or clothes
              </Switch>
            </div>
          </Fields>
        </Section>
      </CardForm>
    </Page>
  );
}
