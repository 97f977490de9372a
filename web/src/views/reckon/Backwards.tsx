import { ApiError, type Schemas } from "../../api/client";
import { useAreas, useBackwards, useProducts, useRowFits } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Findings } from "../../parts/Findings";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { RateRule } from "../../parts/RateRule";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { doseUnits, volumeUnits } from "../../parts/units";
import { Verdict } from "../../parts/Verdict";
import { Working } from "../../parts/Working";
import { areaOptions, productOptions, reckonParts } from "./state";

type Mode = Schemas["BackIn"]["mode"];

interface Typed {
  mode: Mode;
  product: string;
  row: string;
  area: string;
  share: string;
  amount: TypedQuantity;
  left: TypedQuantity;
  spray: TypedQuantity;
  rate: TypedQuantity;
}

const modes: { key: Mode; text: string; note: string }[] = [
  { key: "used", text: "This much went down", note: "the check at the pour" },
  { key: "left", text: "This much is left", note: "what there was, less what remains" },
  { key: "whole", text: "A whole package", note: "what rate it would make, and how many are needed" },
];

/** The sum backwards: from an amount, a leftover or a package to the rate that it makes. */
export function Backwards() {
  const account = useAccount();
  const us = account.units === "us";
  const products = useProducts();
  const areas = useAreas();
  const { value, change } = useDraft<Typed>(`${account.slug}/back`, {
    mode: "used",
    product: "",
    row: "",
    area: "",
    share: "",
    amount: { value: "", unit: "" },
    left: { value: "", unit: "" },
    spray: { value: "", unit: us ? "gal" : "l" },
    rate: { value: "", unit: "" },
  });
  const product = products.data?.find((p) => `${p.id}` === value.product);
  const fits = useRowFits(product?.id ?? null, value.area ? [Number(value.area)] : [], "");
  const best = fits.data?.fits[Number(value.area)]?.[0]?.row_id;
  const row =
    product?.rates.find((r) => `${r.id}` === value.row) ??
    product?.rates.find((r) => r.id === best) ??
    product?.rates[0];
  const units = doseUnits(account.units, product?.liquid ?? true);
  const unit = (q: TypedQuantity) => (units.some((u) => u.key === q.unit) ? q.unit : units[0]!.key);
  const amount = { ...value.amount, unit: unit(value.amount) };
  const left = { ...value.left, unit: unit(value.left) };
  const ready =
    product && row && value.area && amount.value.trim() && (value.mode !== "left" || left.value.trim());
  const key = useSettled(
    JSON.stringify(
      ready
        ? {
            mode: value.mode,
            product_id: product.id,
            row_id: row.id,
            area_id: Number(value.area),
            share: value.share,
            amount,
            left: value.mode === "left" ? left : null,
            spray: value.spray.value.trim() ? value.spray : null,
            rate:
              value.mode === "whole" && value.rate.value.trim()
                ? {
                    value: value.rate.value,
                    unit: row.units.some((u) => u.key === value.rate.unit) ? value.rate.unit : row.high.unit,
                  }
                : null,
          }
        : null,
    ),
    80,
  );
  const asked = JSON.parse(key) as Schemas["BackIn"] | null;
  const found = useBackwards(asked);
  const answer = asked && !found.error ? found.data : undefined;
  const error = asked ? found.error : null;
  const placed = ["amount", "left", "spray", "rate", "share", "treated", "row_id"];
  return (
    <FaultsContext.Provider value={faultsOf(error)}>
      <Page
        sentence={answer?.sentence ?? "From what was used, or what is left, back to the rate."}
        margin={
          answer && (
            <Section title="The working">
              <Working steps={answer.working} />
            </Section>
          )
        }
      >
        <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />
        <Fields $columns={3}>
          <PickField
            label="What is known"
            name="mode"
            value={value.mode}
            options={modes}
            onChange={(mode) => change({ mode: mode as Mode })}
          />
          <PickField
            label="Product"
            name="product"
            value={value.product || null}
            options={productOptions(products.data)}
            onChange={(key) => change({ product: key, row: "" })}
          />
          <PickField
            label="Judged by"
            name="row_id"
            value={row ? `${row.id}` : null}
            options={(product?.rates ?? []).map((r) => ({ key: `${r.id}`, text: r.phrase, note: r.use }))}
            onChange={(key) => change({ row: key })}
          />
          <PickField
            label="Area"
            name="area"
            value={value.area || null}
            options={areaOptions(areas.data?.areas)}
            onChange={(area) => change({ area })}
          />
          <TextField
            label="Part of the area"
            name="share"
            value={value.share}
            onChange={(share) => change({ share })}
            input={{ placeholder: "all" }}
            hint="1/4, 20 %"
          />
          <QuantityField
            label={value.mode === "used" ? "Used" : value.mode === "left" ? "There was" : "The package holds"}
            name="amount"
            value={amount}
            units={units}
            onChange={(q) => change({ amount: q })}
          />
          {value.mode === "left" && (
            <QuantityField
              label="Left over"
              name="left"
              value={left}
              units={units}
              onChange={(q) => change({ left: q })}
            />
          )}
          {value.mode === "whole" && row && (
            <QuantityField
              label="Rate that is meant"
              name="rate"
              value={{
                ...value.rate,
                unit: row.units.some((u) => u.key === value.rate.unit) ? value.rate.unit : row.high.unit,
              }}
              units={row.units}
              onChange={(rate) => change({ rate })}
              hint={`Empty: the label's highest, ${row.high.text}.`}
            />
          )}
          {row && !row.per_area && (
            <QuantityField
              label="Spray put down"
              name="spray"
              value={value.spray}
              units={volumeUnits(account.units)}
              onChange={(spray) => change({ spray })}
            />
          )}
        </Fields>
        {error instanceof ApiError
          ? error.fields
              .filter((f) => !placed.includes(f.field))
              .map((f) => (
                <Notice key={f.field} tone="stop" word="Cannot be reckoned">
                  {f.problem} {f.remedy}
                </Notice>
              ))
          : error && <Fault error={error} />}
        {answer && (
          <section aria-label="Answer" style={{ marginTop: 24 }}>
            <p style={{ fontSize: "1.5rem" }}>
              <strong data-answer="back">{answer.rate.text}</strong>
            </p>
            <RateRule rule={answer.rule} label="Rate that it makes" text={answer.rate.text} />
            <Verdict judgement={answer.judgement} />
            {answer.misread && (
              <div style={{ marginTop: 10 }}>
                <Findings of={[answer.misread]} />
              </div>
            )}
            {answer.reach && <Hint style={{ marginTop: 10 }}>{answer.reach}</Hint>}
          </section>
        )}
      </Page>
    </FaultsContext.Provider>
  );
}
