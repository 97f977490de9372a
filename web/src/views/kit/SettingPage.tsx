import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useSetting } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { CurveChart } from "../../parts/CurveChart";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Findings } from "../../parts/Findings";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { spreadUnits } from "../../parts/units";
import { machineParts } from "./kitParts";
import { Midway } from "./Midway";
import { OfMachine } from "./OfMachine";

const Big = styled.p`
  font-size: ${t.s34};
  font-weight: 600;
  margin: 14px 0;
`;

/** The setting of a spreader for a rate, by its own tests; and a look half way. */
export function SettingPage() {
  return <OfMachine>{(whole) => <Setting key={whole.machine.id} whole={whole} />}</OfMachine>;
}

function Setting({ whole }: { whole: Schemas["MachineWholeOut"] }) {
  const { machine, curves } = whole;
  const account = useAccount();
  const may = useMay("manager");
  const products = (useProducts().data ?? []).filter((p) => machine.takes.includes(p.id));
  const [v, setV] = useState({
    product: curves[0] ? `${curves[0].product_id}` : "",
    rate: { value: "", unit: spreadUnits(account.units)[0]!.key },
    passes: "1",
  });
  const set = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const body =
    v.product && v.rate.value.trim()
      ? { product_id: Number(v.product), rate: v.rate, passes: Number(v.passes) }
      : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 80)) as typeof body;
  const found = useSetting(machine.id, asked);
  const answer = body && asked && !found.error ? found.data : undefined;
  const curve = curves.find((c) => `${c.product_id}` === v.product);
  const at =
    curve && answer?.setting && v.rate.unit === spreadUnits(account.units)[0]!.key
      ? { setting: Number(answer.setting), rate: Number(v.rate.value) / Number(v.passes) }
      : undefined;
  return (
    <Page sentence={answer?.sentence ?? `Which setting of ${machine.name} puts down what is wanted?`}>
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, machine, may)} />
      <FaultsContext.Provider value={faultsOf(asked ? found.error : null)}>
        <Fields $columns={3}>
          <PickField
            label="Product"
            name="product_id"
            value={v.product || null}
            options={products.map((p) => ({
              key: `${p.id}`,
              text: p.name,
              note: curves.some((c) => c.product_id === p.id) ? "tested in this spreader" : "not tested yet",
            }))}
            onChange={(product) => set({ product })}
          />
          <QuantityField
            label="Product wanted in all"
            name="rate"
            value={v.rate}
            units={spreadUnits(account.units)}
            onChange={(rate) => set({ rate })}
          />
          <PickField
            label="Passes"
            name="passes"
            value={v.passes}
            options={["1", "2", "3", "4"].map((n) => ({
              key: n,
              text: n,
              note: n === "2" ? "half the rate in two directions" : undefined,
            }))}
            onChange={(passes) => set({ passes })}
          />
        </Fields>
        {answer && (
          <>
            {answer.setting && <Big data-answer="setting">{`Setting ${answer.setting}`}</Big>}
            <Findings of={answer.findings} />
          </>
        )}
        {curve && (
          <Section title={`Tests of ${curve.product}`}>
            <CurveChart curve={curve} at={at} />
          </Section>
        )}
      </FaultsContext.Provider>
      <Section title="Half way there">
        <Midway solid />
      </Section>
    </Page>
  );
}
