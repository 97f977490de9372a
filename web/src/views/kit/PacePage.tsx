import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { usePace } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Notice } from "../../parts/Notice";
import { PaceBeat } from "../../parts/PaceBeat";
import { MarginNotes } from "../../parts/MarginNotes";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { areaUnits, lengthUnits, outputUnits, tankUnits } from "../../parts/units";
import { machineParts } from "./kitParts";
import { OfMachine } from "./OfMachine";

/** The pace for an output, a beat to walk it to, and whether it is kept. */
export function PacePage() {
  return <OfMachine>{({ machine }) => <Pace key={machine.id} machine={machine} />}</OfMachine>;
}

function Pace({ machine }: { machine: Schemas["MachineOut"] }) {
  const account = useAccount();
  const may = useMay("manager");
  const us = account.units === "us";
  const [v, setV] = useState({
    output: { value: "", unit: us ? "gal/kft2" : "l/m2_100" },
    flow: { value: "", unit: us ? "gal" : "l" },
    width: { value: "", unit: us ? "ft" : "m" },
    area: { value: "", unit: us ? "ft2" : "m2" },
    marks: { value: us ? "10" : "3", unit: us ? "ft" : "m" },
    splits: "",
  });
  const set = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const areas = useAreas().data?.areas ?? [];
  const body = v.marks.value.trim() ? { ...v, splits: v.splits.split(/[\s;]+/).filter(Boolean) } : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 80)) as typeof body;
  const found = usePace(machine.id, asked);
  const answer = body && asked && !found.error ? found.data : undefined;
  const faults = faultsOf(asked ? found.error : null).fields.map((f) => ({
    ...f,
    field: f.field.replace(/^(splits|marks)\.\d+$/, "splits"),
  }));
  const known = machine.output ? `Empty: ${machine.output.text}, as it is known.` : undefined;
  return (
    <Page
      sentence={answer?.sentence ?? `At which pace does ${machine.name} put down what is wanted?`}
      margin={
        answer && <MarginNotes title="What it rests on" facts={answer.facts} working={answer.working} />
      }
    >
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, machine, may)} />
      <FaultsContext.Provider value={{ fields: faults, live: true }}>
        <Fields $columns={3}>
          <QuantityField
            label="Output that is wanted"
            name="output"
            value={v.output}
            units={outputUnits(account.units)}
            onChange={(output) => set({ output })}
            hint={known}
          />
          <QuantityField
            label="Flow in a minute"
            name="flow"
            value={v.flow}
            units={tankUnits(account.units)}
            onChange={(flow) => set({ flow })}
            hint="Empty: by the calibration in use."
          />
          <QuantityField
            label="Swath"
            name="width"
            value={v.width}
            units={lengthUnits(account.units)}
            onChange={(width) => set({ width })}
            hint={machine.swath ? `Empty: ${machine.swath}.` : undefined}
          />
          <QuantityField
            label="Marks apart"
            name="marks"
            value={v.marks}
            units={lengthUnits(account.units)}
            onChange={(marks) => set({ marks })}
          />
          <PickField
            label="For the area"
            name="of"
            value={
              areas.find((a) => a.size.exact === v.area.value && a.size.unit === v.area.unit)?.name ?? null
            }
            placeholder="Pick, or type its size"
            options={areas.map((a) => ({ key: a.name, text: a.name, note: a.size.text }))}
            onChange={(name) => {
              const size = areas.find((a) => a.name === name)?.size;
              if (size) set({ area: { value: size.exact, unit: size.unit } });
            }}
          />
          <QuantityField
            label="For an area of"
            name="area"
            value={v.area}
            units={areaUnits(account.units)}
            onChange={(area) => set({ area })}
          />
        </Fields>
        {answer && (
          <>
            <Section title="Walk to the beat">
              <PaceBeat
                beat={answer.beat}
                marks={`${v.marks.value} ${v.marks.unit}`}
                onSplit={(s) => setV((now) => ({ ...now, splits: `${now.splits} ${s}`.trim() }))}
              />
            </Section>
            <Section title="Was it kept?">
              <Fields>
                <TextField
                  label="Time of each stretch, s"
                  name="splits"
                  value={v.splits}
                  onChange={(splits) => set({ splits })}
                  hint="Press “At a mark” as you pass each, or type them."
                  input={{ inputMode: "decimal" }}
                />
                <div style={{ paddingTop: 20 }}>
                  <Button isDisabled={!v.splits} onPress={() => set({ splits: "" })}>
                    Begin again
                  </Button>
                </div>
              </Fields>
              {answer.walked && <p data-answer="walked">{answer.walked}</p>}
              {answer.drift &&
                (answer.tired ? (
                  <Notice tone="caution" word="Tired">
                    {answer.drift}
                  </Notice>
                ) : (
                  <Hint>{answer.drift}</Hint>
                ))}
            </Section>
          </>
        )}
      </FaultsContext.Provider>
    </Page>
  );
}
