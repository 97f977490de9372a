import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAreas, useProducts } from "../../api/hooks";
import { useKitOptions, useNozzle } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Notice } from "../../parts/Notice";
import { MarginNotes } from "../../parts/MarginNotes";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField, typedOf } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { lengthUnits, outputUnits, windUnits } from "../../parts/units";
import { pressureUnits } from "./benches";
import { DropletScale } from "./DropletScale";
import { machineParts } from "./kitParts";
import { OfMachine } from "./OfMachine";

const Big = styled.p`
  font-size: ${t.s34};
  font-weight: 600;
  line-height: 1.2;
  margin-top: 18px;
`;

/** What a nozzle gives, what it would take for another output, and the droplets for a purpose. */
export function NozzlePage() {
  return <OfMachine>{({ machine }) => <Card key={machine.id} machine={machine} />}</OfMachine>;
}

function Card({ machine }: { machine: Schemas["MachineOut"] }) {
  const account = useAccount();
  const may = useMay("manager");
  const us = account.units === "us";
  const options = useKitOptions().data;
  const products = useProducts().data ?? [];
  const areas = useAreas().data?.areas ?? [];
  const [v, setV] = useState({
    size: machine.nozzle_size,
    count: `${machine.nozzle_count ?? 1}`,
    spacing: typedOf(machine.nozzle_spacing, us ? "in" : "cm"),
    pressure: typedOf(machine.pressure, us ? "psi" : "bar"),
    pace: { value: "", unit: us ? "mph" : "kmh" },
    wanted: { value: "", unit: us ? "gal/kft2" : "l/ha" },
    gravity: "1",
    product: "",
    area: "",
    works_on: "leaf" as "leaf" | "soil" | "",
    systemic: false,
  });
  const set = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const { product, area, ...rest } = v;
  const body = v.size
    ? {
        ...rest,
        product_id: product ? Number(product) : null,
        area_id: area ? Number(area) : null,
        works_on: product ? ("" as const) : v.works_on,
      }
    : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 80)) as typeof body;
  const found = useNozzle(asked);
  const answer = body && asked && !found.error ? found.data : undefined;
  return (
    <Page
      sentence={answer?.sentence ?? `The nozzles of ${machine.name}.`}
      margin={
        answer && (
          <MarginNotes
            title="What it gives"
            facts={answer.facts}
            notes={answer.notes}
            working={answer.working}
          />
        )
      }
    >
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, machine, may)} />
      <FaultsContext.Provider value={faultsOf(asked ? found.error : null)}>
        <Fields $columns={3}>
          <PickField
            label="Size of the tips"
            name="size"
            value={v.size || null}
            options={(options?.sizes ?? []).map((s) => ({ key: s.key, text: s.text, note: s.flow }))}
            onChange={(size) => set({ size })}
          />
          <TextField
            label="How many"
            name="count"
            value={v.count}
            onChange={(count) => set({ count })}
            input={{ inputMode: "numeric" }}
          />
          <QuantityField
            label="Pressure"
            name="pressure"
            value={v.pressure}
            units={pressureUnits(account.units)}
            onChange={(pressure) => set({ pressure })}
            hint={`Empty: ${us ? "43.5 psi" : "3 bar"}, the series’ own.`}
          />
          <QuantityField
            label="One tip covers"
            name="spacing"
            value={v.spacing}
            units={lengthUnits(account.units)}
            onChange={(spacing) => set({ spacing })}
          />
          <QuantityField
            label="Pace"
            name="pace"
            value={v.pace}
            units={windUnits(account.units)}
            onChange={(pace) => set({ pace })}
          />
          <QuantityField
            label="Output that is wanted"
            name="wanted"
            value={v.wanted}
            units={outputUnits(account.units)}
            onChange={(wanted) => set({ wanted })}
          />
          <TextField
            label="Weight of the spray over water’s"
            name="gravity"
            value={v.gravity}
            onChange={(gravity) => set({ gravity })}
            hint="1 for most; liquid fertiliser undiluted 1.2 to 1.35."
            input={{ inputMode: "decimal" }}
          />
        </Fields>
        {!body && (
          <Notice tone="note" word="Next">
            Pick the size that is stamped on the tip.
          </Notice>
        )}
        {answer && <Big data-answer="nozzle">{answer.answer}</Big>}
        <Section title="Droplets for the job">
          <Fields $columns={3}>
            <PickField
              label="Product"
              name="product_id"
              value={v.product}
              options={[
                { key: "", text: "None" },
                ...products
                  .filter((p) => machine.takes.includes(p.id))
                  .map((p) => ({ key: `${p.id}`, text: p.name, note: p.kind_text })),
              ]}
              onChange={(key) => set({ product: key })}
            />
            {!v.product && (
              <PickField
                label="It works"
                name="works_on"
                value={v.works_on}
                options={[
                  { key: "leaf", text: "On the leaf" },
                  { key: "soil", text: "In the soil" },
                ]}
                onChange={(key) => set({ works_on: key as "leaf" | "soil" })}
              />
            )}
            <PickField
              label="Near what is on"
              name="area_id"
              value={v.area}
              options={[
                { key: "", text: "No area in mind" },
                ...areas.map((a) => ({ key: `${a.id}`, text: a.name })),
              ]}
              onChange={(key) => set({ area: key })}
            />
          </Fields>
          <Switch value={v.systemic} onChange={(systemic) => set({ systemic })}>
            The plant carries it (systemic)
          </Switch>
          {answer && <DropletScale answer={answer} fitted={machine.droplets ?? null} />}
        </Section>
      </FaultsContext.Provider>
    </Page>
  );
}
