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
};

/** Products for one purpose side by side: what each takes, brings and costs, and what to buy. */
export function Compare() {
  const account = useAccount();
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
            equal_to: value.equal ? Number(value.equal) : null,
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
            label="For"
            name="target"
            value={value.target}
            options={[
              { key: "", text: "Not said" },
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
            label="Of it"
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
              { key: "", text: "Not said" },
              ...(machines.data ?? [])
                .filter((m) => m.kind === "sprayer")
                .map((m) => ({ key: `${m.id}`, text: m.name, note: m.output?.text })),
            ]}
            onChange={(machine) => change({ machine })}
            hint="For rates that are a share of the spray."
          />
          <PickField
            label="As much active as"
            name="equal_to"
            value={value.equal}
            options={[
              { key: "", text: "Each at its own rate" },
              ...rows
                .filter((r) => r.active)
                .map((r) => ({ key: `${r.product_id}`, text: r.product, note: r.active })),
            ]}
            onChange={(equal) => change({ equal })}
            hint="A weak granule and a strong concentrate may be one dose."
          />
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
                  {any((r) => r.nitrogen) && <th className="figure wide">N, and its cost</th>}
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
                    <td className="figure wide">{r.rate.text}</td>
                    <td className="figure">{r.amount}</td>
                    <Figure className="figure" $best={r.best.includes("cost")}>
                      {r.cost}
                      {r.best.includes("cost") && <small>least</small>}
                      <Bar $share={r.cost_share} />
                    </Figure>
                    <td className="figure wide">{r.per_foot}</td>
                    {any((x) => x.nitrogen) && (
                      <Figure className="figure wide" $best={r.best.includes("per_nitrogen")}>
                        {r.nitrogen}
                        {r.per_nitrogen && (
                          <div className="soft">{`${r.per_nitrogen} a ${account.units === "us" ? "lb" : "kg"} of N`}</div>
                        )}
                        {r.best.includes("per_nitrogen") && <small>least for its N</small>}
                      </Figure>
                    )}
                    {any((x) => x.active) && (
                      <Figure className="figure wide" $best={r.best.includes("per_active")}>
                        {r.active}
                        {r.per_active && (
                          <div className="soft">{`${r.per_active} ${account.units === "us" ? "an oz" : "a g"}`}</div>
                        )}
                        {r.best.includes("per_active") && <small>least for its active</small>}
                        <Bar $share={r.active_share} />
                      </Figure>
                    )}
                    <td className="wide soft">
                      {r.purchase}
                      {r.leftover && r.purchase && <div>{`${r.leftover} over`}</div>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
            <Hint style={{ marginTop: 10 }}>
              Each at the rate that the house opens with, by the row that its label means for this ground. How
              strong a product is in the can says nothing of the dose: read the active per area.
            </Hint>
          </Scroll>
        )}
      </Page>
    </FaultsContext.Provider>
  );
}
