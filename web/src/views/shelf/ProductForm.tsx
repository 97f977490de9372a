import { useState } from "react";
import { api, read, send, type Schemas } from "../../api/client";
import { useChange, useGrade, useLabelText } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { CardForm } from "../../parts/CardForm";
import { Hint } from "../../parts/Field";
import { ManyField } from "../../parts/ManyField";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { densityUnits, packageUnits } from "../../parts/units";
import { ContentRows } from "./ContentRows";
import { LabelFiles } from "./LabelFiles";
import { LabelText } from "./LabelText";
import { PackageRows } from "./PackageRows";
import { PrintedRows } from "./PrintedRows";
import { RateRows } from "./RateRows";
import { RuleFields } from "./RuleFields";
import { Stock } from "./Stock";
import { opened, toProductIn, typedCard, typedProduct, type Product } from "./typed";

const placed = [
  "name",
  "kind",
  "also",
  "formulation",
  "group_code",
  "registration",
  "looks",
  "expect",
  "rates",
  "contents",
  "density",
  "packages",
  "printed",
  "rules",
  "note",
];

/** The text of a label as it is pasted, and what of it is not taken; kept until the card is on the shelf. */
export function useLabelDraft() {
  const account = useAccount();
  return useDraft(`${account.slug}/label-text`, { text: "", without: [] as number[] });
}

/** A new card filled in from the text of its label; what was read is confirmed in the fields below. */
function FromText({
  draft: { value, change },
  onCard,
}: {
  draft: ReturnType<typeof useLabelDraft>;
  onCard: (card: Schemas["ProductIn"]) => void;
}) {
  const { data } = useLabelText(useSettled(value.text, 300), value.without);
  const taken = data?.found.filter((f) => f.taken).length ?? 0;
  return (
    <Section title="From the text of the label">
      <LabelText
        text={value.text}
        onText={(text) => change({ text, without: [] })}
        read={data}
        without={value.without}
        onWithout={(without) => change({ without })}
      />
      {data && value.text.trim() && taken > 0 && (
        <Bar>
          <Button onPress={() => onCard(data.card)}>
            {taken === 1 ? "Fill in 1 field" : `Fill in ${taken} fields`}
          </Button>
        </Bar>
      )}
    </Section>
  );
}

/** A product's label card as a form. What is half typed survives a reload. */
export function ProductForm({
  product,
  options,
}: {
  product?: Product;
  options: Schemas["ShelfOptionsOut"];
}) {
  const account = useAccount();
  const draft = useDraft(
    `${account.slug}/product/${product?.id ?? "new"}`,
    typedProduct(product, account.units === "us"),
  );
  const { value, change } = draft;
  const pasted = useLabelDraft();
  const grade = useGrade(useSettled(value.name, 200)).data;
  const stated = grade?.contents.filter(
    (c) => !value.contents.some((x) => x.basis === c.basis && x.amount.trim()),
  );
  const open = (kind: string) =>
    change({
      kind,
      contents: opened(value.contents, options.kinds.find((k) => k.key === kind)?.opens ?? [], options.bases),
    });
  const [rules, setRules] = useState(false);
  const save = useChange((path, body: Schemas["ProductIn"]) =>
    product
      ? read(
          send.PUT("/api/accounts/{account}/products/{product_id}", {
            params: { path: { ...path, product_id: product.id } },
            body,
          }),
        )
      : read(send.POST("/api/accounts/{account}/products", { params: { path }, body })),
  );
  const remove = useChange((path, product_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/products/{product_id}", {
        params: { path: { ...path, product_id } },
      }),
    ),
  );
  const putBack = useChange((path, product_id: number) =>
    read(
      api.POST("/api/accounts/{account}/products/{product_id}/put-back", {
        params: { path: { ...path, product_id } },
      }),
    ),
  );
  const made = options.formulations.find((f) => f.key === value.formulation);
  const units = packageUnits(account.units, made?.liquid ?? false);
  const formulate = (formulation: string) => {
    const next = packageUnits(
      account.units,
      options.formulations.find((f) => f.key === formulation)?.liquid ?? false,
    );
    const packages = value.packages.map((p) =>
      next.some((u) => u.key === p.unit) ? p : { ...p, unit: next[0]!.key },
    );
    change({ formulation, packages });
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
        draft={{
          kept: draft.kept,
          clear: () => {
            draft.clear();
            pasted.clear({ text: "", without: [] });
          },
        }}
        placed={placed}
      >
        {product?.warnings.map((w) => (
          <Notice key={w} tone="caution">
            {w}
          </Notice>
        ))}
        {!product && (
          <FromText draft={pasted} onCard={(card) => change(typedCard(card, account.units === "us"))} />
        )}
        <Section title="What it is">
          <Fields $columns={3}>
            <TextField
              needed
              label="Name"
              name="name"
              value={value.name}
              onChange={(name) => change({ name })}
            />
            <PickField
              needed
              label="Type"
              name="kind"
              value={value.kind || null}
              options={options.kinds}
              onChange={open}
            />
            <ManyField
              label="It is also"
              name="also"
              values={value.also ?? []}
              options={options.kinds.filter((k) => k.key !== value.kind)}
              onChange={(also) => change({ also })}
            />
            <PickField
              needed
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
            <TextField
              label="Registration number"
              name="registration"
              value={value.registration}
              onChange={(registration) => change({ registration })}
              hint="As the label has it; records carry it."
            />
            <TextField
              label="Look again on days"
              name="looks"
              value={value.looks}
              onChange={(looks) => change({ looks })}
              input={{ placeholder: "3, 8, 14", inputMode: "numeric" }}
              hint="After it went down. Empty: as usual for its kind."
            />
            <TextField
              label="What is seen after it"
              name="expect"
              value={value.expect}
              onChange={(expect) => change({ expect })}
              hint="Such as: yellow from day 2 to 4, gone with mowing."
            />
          </Fields>
        </Section>
        <Section title="Its rates">
          <RateRows
            rows={value.rates}
            options={options}
            formulation={value.formulation}
            onChange={(rates) => change({ rates })}
          />
        </Section>
        <Section title="What is in it">
          {grade && stated && stated.length > 0 && (
            <Notice tone="note" word="In its name">
              {`${grade.text}. `}
              <Button
                look="quiet"
                onPress={() =>
                  change({
                    contents: [
                      ...value.contents.filter(
                        (c) => c.amount.trim() && !stated.some((s) => s.basis === c.basis),
                      ),
                      ...stated.map(({ name, basis, amount, unit, slow }) => ({
                        name,
                        basis,
                        amount,
                        unit,
                        slow,
                      })),
                    ],
                  })
                }
              >
                Take them as its contents
              </Button>
            </Notice>
          )}
          <ContentRows
            rows={value.contents}
            bases={options.bases}
            onChange={(contents) => change({ contents })}
          />
        </Section>
        <Section title="Weight, packages and prices">
          <Fields $columns={3}>
            <QuantityField
              label="Density"
              name="density"
              value={value.density}
              units={densityUnits(account.units)}
              onChange={(density) => change({ density })}
              hint="For liquids: weight per gallon or per litre, as the label says."
            />
          </Fields>
          <div style={{ marginTop: 16 }}>
            <PackageRows rows={value.packages} units={units} onChange={(packages) => change({ packages })} />
          </div>
        </Section>
        {made && !made.sprayed && (
          <Section title="Settings on the bag">
            <PrintedRows rows={value.printed ?? []} onChange={(printed) => change({ printed })} />
          </Section>
        )}
        <Section
          title={
            <>
              {product && product.rules_said.length > 0
                ? `The label also says: ${product.rules_said.length} rules`
                : "What else the label rules"}
              <Button look="quiet" onPress={() => setRules(!rules)} aria-expanded={rules}>
                {rules ? "Fold them away" : "Open them"}
              </Button>
            </>
          }
        >
          {!rules && (
            <Hint>
              {product?.rules_said.map((r) => r.text).join(" ") ||
                "Limits, intervals, weather, water, mowing, seed, keeping off, mixing: what stands here is checked at every plan."}
            </Hint>
          )}
          {rules && (
            <RuleFields
              fields={options.rules}
              rules={value.rules}
              onChange={(next) => change({ rules: next })}
            />
          )}
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
      {product && (
        <>
          <Stock product={product} />
          <LabelFiles product={product} />
        </>
      )}
    </Page>
  );
}
