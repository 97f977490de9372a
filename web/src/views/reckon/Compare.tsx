import { Link } from "react-router";
import styled from "styled-components";
import { ApiError, type Schemas } from "../../api/client";
import { useAreas, useCompared, useMachines, useProductOptions, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Ledger } from "../../parts/Ledger";
import { ManyField } from "../../parts/ManyField";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import type { TypedQuantity } from "../../parts/QuantityField";
import { Fields } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { areaOptions, productOptions, reckonParts } from "./state";

const Scroll = styled.div`
  margin-top: 24px;
  overflow-x: auto;
`;
const Bar = styled.i<{ $share: number }>`
  display: block;
  height: 5px;
  margin: 4px 0 0 auto;
  width: ${({ $share }) => Math.max(0, $share * 100)}%;
  background: ${t.rule};
`;
const Figure = styled.td<{ $best?: boolean }>`
  font-weight: ${({ $best }) => ($best ? 600 : 400)};
  small {
    color: ${t.accent};
    font-size: ${t.s13};
    display: block;
  }
`;
const Typed = styled.div`
  label {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  position: relative;
  min-width: 130px;
  input {
    text-align: right;
  }
`;
const Mind = styled.div`
  color: ${t.caution};
  font-size: ${t.s13};
`;

const nothing = {
  area: "",
  share: "",
  target: "",
  kind: "",
  products: [] as string[],
  machine: "",
  equal: "",
  equalIn: "active",
  at: "" as Schemas["CompareIn"]["at"],
  nutrient: "N",
  rates: {} as Record<string, TypedQuantity>,
};

/** Products for one purpose side by side: what each takes, brings and costs, and what to buy. */
export function Compare() {
  const account = useAccount();
  const us = account.units === "us";
  const products = useProducts();
  const areas = useAreas();
  const machines = useMachines();
  const options = useProductOptions();
  const { value, change } = useDraft(`${account.slug}/compare`, nothing);
  const ready = value.area && (value.target || value.kind || value.products.length > 0);
  const key = useSettled(
    JSON.stringify(
      ready
        ? {
            area_id: Number(value.area),
            share: value.share,
            target: value.target,
            kind: value.kind,
            product_ids: value.products.map(Number),
            machine_id: value.machine ? Number(value.machine) : null,
            at: value.at,
            rates: Object.entries(value.rates)
              .filter(([, rate]) => rate.value.trim())
              .map(([id, rate]) => ({ product_id: Number(id), rate })),
            equal_to: value.equal ? Number(value.equal) : null,
            equal_in: value.equalIn,
            nutrient: value.nutrient,
          }
        : null,
    ),
    80,
  );
  const asked = JSON.parse(key) as Schemas["CompareIn"] | null;
  const found = useCompared(asked);
  const error = asked ? found.error : null;
  const answer = asked && !found.error ? found.data : undefined;
  const targets = new Set((products.data ?? []).flatMap((p) => p.targets));
  const kinds = new Set((products.data ?? []).map((p) => p.kind));
  const rows = answer?.rows ?? [];
  const any = (pick: (r: Schemas["ComparedOut"]) => string) => rows.some((r) => pick(r));
  return (
    <FaultsContext.Provider value={faultsOf(error)}>
      <Page sentence={answer?.sentence ?? "Which product does it for least? Pick a purpose and an area."}>
        <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />
        <Fields $columns={4}>
          <PickField
            label="Target"
            name="target"
            value={value.target}
            options={[
              { key: "", text: "None" },
              ...(options.data?.targets ?? [])
                .filter((x) => targets.has(x.key))
                .map((x) => ({ key: x.key, text: x.text })),
            ]}
            onChange={(target) => change({ target, equal: "" })}
          />
          <PickField
            label="or of a type"
            name="kind"
            value={value.kind}
            options={[
              { key: "", text: "Any" },
              ...(options.data?.kinds ?? []).filter((k) => kinds.has(k.key)),
            ]}
            onChange={(kind) => change({ kind, equal: "" })}
          />
          <ManyField
            label="or these products"
            name="product_ids"
            values={value.products}
            options={productOptions(products.data)}
            onChange={(list) => change({ products: list, equal: "" })}
            none="As above"
          />
          <PickField
            label="On"
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
          />
          <PickField
            label="Sprayed with"
            name="machine"
            value={value.machine}
            options={[
              { key: "", text: "None" },
              ...(machines.data ?? [])
                .filter((m) => m.kind === "sprayer")
                .map((m) => ({ key: `${m.id}`, text: m.name, note: m.output?.text })),
            ]}
            onChange={(machine) => change({ machine })}
            hint="For rates that are a share of the spray."
          />
          <PickField
            label="Each at"
            name="at"
            value={value.at}
            options={[
              { key: "", text: "what the house opens with" },
              { key: "low", text: "the label’s lowest" },
              { key: "middle", text: "the label’s middle" },
              { key: "high", text: "the label’s highest" },
            ]}
            onChange={(key) => change({ at: key as typeof value.at })}
            hint="Or type the rate of one in its line."
          />
          <PickField
            label="All bring as much"
            name="equal_in"
            value={value.equalIn}
            options={[{ key: "active", text: "active" }, ...(answer?.nutrients ?? [])]}
            onChange={(equalIn) => change({ equalIn })}
          />
          <PickField
            label="as"
            name="equal_to"
            value={value.equal}
            options={[
              { key: "", text: "Each at its own rate" },
              ...rows
                .filter((r) => (value.equalIn === "active" ? r.active : r.brought))
                .map((r) => ({ key: `${r.product_id}`, text: r.product, note: r.active || r.brought })),
            ]}
            onChange={(equal) =>
              change({ equal, nutrient: value.equalIn === "active" ? value.nutrient : value.equalIn })
            }
            hint="A weak granule and a strong concentrate may be one dose."
          />
          {(answer?.nutrients.length ?? 0) > 1 && (
            <PickField
              label={`Cost a ${us ? "lb" : "kg"} of`}
              name="nutrient"
              value={value.nutrient}
              options={answer!.nutrients}
              onChange={(nutrient) => change({ nutrient })}
            />
          )}
        </Fields>
        {error instanceof ApiError ? (
          error.fields.map((f) => (
            <Notice key={f.field} tone="stop" word="Cannot be compared">
              {f.problem} {f.remedy}
            </Notice>
          ))
        ) : (
          <Fault error={error} />
        )}
        {answer && (
          <Scroll tabIndex={0} role="region" aria-label="Products side by side">
            <Ledger>
              <thead>
                <tr>
                  <th>Product</th>
                  <th className="figure wide">Rate</th>
                  <th className="figure">Amount here</th>
                  <th className="figure">Cost here</th>
                  <th className="figure wide">{`per ${answer.foot}`}</th>
                  {any((r) => r.brought) && (
                    <th className="figure wide">{`${answer.nutrient}, and its cost`}</th>
                  )}
                  {any((r) => r.active) && <th className="figure wide">Active, and its cost</th>}
                  <th className="wide">To buy</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.product_id} style={r.fits ? undefined : { opacity: 0.75 }}>
                    <td>
                      <Link to={`/a/${account.slug}/shelf/${r.product_id}`}>{r.product}</Link>
                      <div className="soft">{[r.codes, r.use].filter(Boolean).join("; ")}</div>
                      <div className="soft narrow">{r.rate.text}</div>
                      {r.misses.map((m) => (
                        <Mind key={m}>{m}</Mind>
                      ))}
                      {r.problem && <Mind>{r.problem}</Mind>}
                    </td>
                    <td className="figure wide">
                      <Typed>
                        <TextField
                          label={`Rate of ${r.product}`}
                          name={`rate-${r.product_id}`}
                          value={value.rates[r.product_id]?.value ?? ""}
                          onChange={(text) =>
                            change((now) => ({
                              rates: { ...now.rates, [r.product_id]: { value: text, unit: r.rate.unit } },
                            }))
                          }
                          input={{ placeholder: r.rate.text, inputMode: "decimal" }}
                        />
                        {value.rates[r.product_id]?.value && <div className="soft">{r.rate.text}</div>}
                      </Typed>
                    </td>
                    <td className="figure">{r.amount}</td>
                    <Figure className="figure" $best={r.best.includes("cost")}>
                      {r.cost}
                      {r.best.includes("cost") && <small>least</small>}
                      <Bar $share={r.cost_share} />
                    </Figure>
                    <td className="figure wide">{r.per_foot}</td>
                    {any((x) => x.brought) && (
                      <Figure className="figure wide" $best={r.best.includes("per_nutrient")}>
                        {r.brought}
                        {r.per_nutrient && (
                          <div className="soft">{`${r.per_nutrient} a ${us ? "lb" : "kg"}`}</div>
                        )}
                        {r.best.includes("per_nutrient") && (
                          <small>{`least for its ${answer.nutrient}`}</small>
                        )}
                      </Figure>
                    )}
                    {any((x) => x.active) && (
                      <Figure className="figure wide" $best={r.best.includes("per_active")}>
                        {r.active}
                        {r.per_active && (
                          <div className="soft">{`${r.per_active} ${us ? "an oz" : "a g"}`}</div>
                        )}
                        {r.best.includes("per_active") && <small>least for its active</small>}
                        <Bar $share={r.active_share} />
                      </Figure>
                    )}
                    <td className="wide soft">
                      {r.stock || r.purchase}
                      {r.leftover && r.purchase && <div>{`${r.leftover} over`}</div>}
                      {r.packages && <div>{`sold in ${r.packages}`}</div>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
            <Hint style={{ marginTop: 10 }}>
              By the row that each label means for this ground; what is in stock is not bought. How strong a
              product is in the can says nothing of the dose: read the active per area.
            </Hint>
          </Scroll>
        )}
      </Page>
    </FaultsContext.Provider>
  );
}
