import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useMeasuring, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Ledger } from "../../parts/Ledger";
import { Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { doseUnits } from "../../parts/units";
import { Vessel } from "../../parts/Vessel";
import { CupCheck } from "../kit/CupCheck";
import { reckonParts } from "./state";

const Split = styled.div`
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 28px;
  align-items: start;
  margin-top: 18px;
  strong.now {
    font-size: ${t.s24};
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** Measuring a dose by what is at hand, and checking a cup by the water it holds. */
export function Measuring() {
  const account = useAccount();
  const us = account.units === "us";
  const products = useProducts();
  const { value, change } = useDraft(`${account.slug}/measuring`, {
    amount: { value: "", unit: us ? "fl_oz" : "ml" },
    product: "",
  });
  const dose = useSettled(
    JSON.stringify(
      value.amount.value.trim()
        ? { amount: value.amount, product_id: value.product ? Number(value.product) : null }
        : null,
    ),
    80,
  );
  const askedDose = JSON.parse(dose) as Schemas["DoseMeasureIn"] | null;
  const found = useMeasuring(askedDose);
  const answer = askedDose && !found.error ? found.data : undefined;
  const every = [...doseUnits(account.units, true), ...doseUnits(account.units, false)];
  return (
    <Page
      sentence={
        answer
          ? `${answer.measure.instruction} in the ${answer.measure.vessel.name}.`
          : "Which vessel measures it, and is the cup true?"
      }
      margin={
        answer && (
          <Section title="The least that each measures">
            <Hint style={{ marginBottom: 8 }}>
              <Link to={`/a/${account.slug}/kit`}>Your own cups, syringes and scales</Link> go first.
            </Hint>
            <Ledger>
              <thead>
                <tr>
                  <th>Vessel</th>
                  <th className="figure">well, 5 % out</th>
                  <th className="figure">at all, 10 %</th>
                </tr>
              </thead>
              <tbody>
                {answer.leasts.map((x) => (
                  <tr key={x.vessel}>
                    <td>{x.vessel}</td>
                    <td className="figure">{x.well}</td>
                    <td className="figure">{x.at_all}</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Section>
        )
      }
    >
      <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />
      <Section title="A dose to measure">
        <FaultsContext.Provider value={faultsOf(askedDose ? found.error : null)}>
          <Fields>
            <QuantityField
              label="Dose"
              name="amount"
              value={value.amount}
              units={every}
              onChange={(amount) => change({ amount })}
            />
            <PickField
              label="Of"
              name="product_id"
              value={value.product}
              options={[
                { key: "", text: "Any product" },
                ...(products.data ?? []).map((p) => ({
                  key: `${p.id}`,
                  text: p.name,
                  note: p.density?.text,
                })),
              ]}
              onChange={(product) => change({ product })}
              hint="Its density turns volume into weight."
            />
          </Fields>
        </FaultsContext.Provider>
        {answer && (
          <Split>
            <Vessel measure={answer.measure} />
            <div>
              <p>
                <strong className="now" data-answer="measure">
                  {answer.measure.instruction}
                </strong>{" "}
                in the {answer.measure.vessel.name}, exactly {answer.measure.exact}.
              </p>
              <p>{`The mark is ${answer.measure.rounding} off; reading it can be ${answer.measure.reading} out.`}</p>
              {answer.measure.note && <Notice tone="caution">{answer.measure.note}</Notice>}
              {answer.dilution && (
                <Notice tone="note" word="Or dilute it">
                  {answer.dilution}
                </Notice>
              )}
              <div style={{ marginTop: 12 }}>
                <Facts of={answer.ways.map((w) => [`in ${w.unit}`, w.text])} />
              </div>
              <Hint style={{ marginTop: 12 }}>
                A cup that has held a pesticide never goes back to the kitchen or the medicine shelf.
              </Hint>
            </div>
          </Split>
        )}
      </Section>
      <CupCheck of="any" />
    </Page>
  );
}
