import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useCup, useMeasuring, useProducts } from "../../api/hooks";
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
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { cupUnits, temperatureUnits, volumeUnits, weightUnits } from "../../parts/units";
import { Vessel } from "../../parts/Vessel";
import { Working } from "../../parts/Working";
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

const filled = (q: TypedQuantity) => (q.value.trim() ? q : null);

/** Measuring a dose by what is at hand, and checking a cup by the water it holds. */
export function Measuring() {
  const account = useAccount();
  const us = account.units === "us";
  const products = useProducts();
  const { value, change } = useDraft(`${account.slug}/measuring`, {
    amount: { value: "", unit: us ? "fl_oz" : "ml" },
    product: "",
    mark: { value: "", unit: us ? "fl_oz" : "ml" },
    weight: { value: "", unit: "g" },
    temperature: { value: "", unit: us ? "degF" : "degC" },
  });
  const dose = useSettled(
    JSON.stringify(
      value.amount.value.trim()
        ? { amount: value.amount, product_id: value.product ? Number(value.product) : null }
        : null,
    ),
    80,
  );
  const cupKey = useSettled(
    JSON.stringify(
      value.mark.value.trim() && value.weight.value.trim()
        ? { mark: value.mark, weight: value.weight, temperature: filled(value.temperature) }
        : null,
    ),
    80,
  );
  const askedDose = JSON.parse(dose) as Schemas["DoseMeasureIn"] | null;
  const askedCup = JSON.parse(cupKey) as Schemas["CupIn"] | null;
  const found = useMeasuring(askedDose);
  const cup = useCup(askedCup);
  const answer = askedDose && !found.error ? found.data : undefined;
  const checked = askedCup && !cup.error ? cup.data : undefined;
  const every = [...volumeUnits(account.units), ...weightUnits(account.units)];
  const withTemperature = faultsOf(askedCup ? cup.error : null).fields;
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
      <Section title="Is a cup true?">
        <Hint style={{ marginBottom: 12 }}>
          Tare the cup, fill it with water to a mark on level ground, read at eye level, and weigh it.
        </Hint>
        <FaultsContext.Provider value={{ fields: withTemperature }}>
          <Fields $columns={3}>
            <QuantityField
              label="The mark says"
              name="mark"
              value={value.mark}
              units={cupUnits(account.units)}
              onChange={(mark) => change({ mark })}
            />
            <QuantityField
              label="Its water weighs"
              name="weight"
              value={value.weight}
              units={weightUnits(account.units)}
              onChange={(weight) => change({ weight })}
            />
            <QuantityField
              label="Water temperature"
              name="temperature"
              value={value.temperature}
              units={temperatureUnits(account.units)}
              onChange={(temperature) => change({ temperature })}
              hint="Empty: 20 °C."
            />
          </Fields>
        </FaultsContext.Provider>
        {checked && (
          <>
            <Notice tone={checked.good ? "note" : "caution"} word={checked.good ? "Good" : "Off"}>
              {checked.sentence}
            </Notice>
            <Working steps={checked.working} />
          </>
        )}
      </Section>
    </Page>
  );
}
