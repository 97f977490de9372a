import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { useGroundOptions } from "../../../api/hooks";
import { useAddSpot, useEyes } from "../../../api/scouting";
import { useAddSample } from "../../../api/soil";
import { useAccount } from "../../../app/session";
import { say } from "../../../app/toast";
import { AreaPlan, PlanBeside } from "../../../parts/AreaPlan";
import { Button } from "../../../parts/Button";
import { DateField, todayHere } from "../../../parts/DateField";
import { Hint } from "../../../parts/Field";
import { Form } from "../../../parts/Form";
import { Line } from "../../../parts/Line";
import { Fault } from "../../../parts/Notice";
import { PickField } from "../../../parts/PickField";
import { QuantityField } from "../../../parts/QuantityField";
import { Bar, Fields, Stack } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";
import { depthUnits } from "../../../parts/units";

type Figure = Required<Schemas["SoilFigureIn"]>;
const ANOTHER = "another";
const FIELDS = ["spot", "spot_id", "ph", "depth", "taken_on", "how", "lab", "number", "values"];
const noFigure: Figure = { kind: "", value: "", unit: "", method: "" };

/** Keep a soil sample: of which spot, how it was read, and what the laboratory's card says. */
export function SampleForm({ area }: { area: Schemas["AreaWholeOut"] }) {
  const { units } = useAccount();
  const us = units === "us";
  const id = area.area.id;
  const options = useGroundOptions();
  const spots = useEyes(id).data?.spots ?? [];
  const blank = {
    taken_on: todayHere(),
    spot_id: "",
    spot: "",
    ph: "",
    depth: { value: "", unit: us ? "in" : "mm" },
    how: "",
    lab: "",
    number: "",
    values: "",
  };
  const [v, setV] = useState(blank);
  const [figures, setFigures] = useState<Figure[]>([]);
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const change = (part: Partial<typeof blank>) => setV((now) => ({ ...now, ...part }));
  const set = (i: number, part: Partial<Figure>) =>
    setFigures((rows) => rows.map((r, j) => (j === i ? { ...r, ...part } : r)));
  const add = useAddSample(id);
  const mark = useAddSpot(id);
  const kinds = options.data?.soil_kinds ?? [];
  const known = spots.some((s) => `${s.id}` === v.spot_id);
  const another = spots.length === 0 || v.spot_id === ANOTHER;
  const keep = (spot_id: number | null) =>
    add.mutate(
      {
        ...v,
        spot_id,
        depth: v.depth.value ? v.depth : null,
        figures: figures.filter((f) => f.kind || `${f.value}`.trim()),
      },
      {
        onSuccess: () => {
          say("The sample is kept.");
          setV({ ...blank, taken_on: v.taken_on, depth: v.depth, how: v.how, lab: v.lab });
          setFigures((rows) => rows.map((r) => ({ ...r, value: "" })));
          setAt(null);
        },
      },
    );
  const submit = () => {
    if (!another || !at) return keep(known ? Number(v.spot_id) : null);
    mark.mutate(
      { name: v.spot, ...at },
      {
        onSuccess: (made) => {
          change({ spot_id: `${made.id}` });
          setAt(null);
          keep(made.id);
        },
      },
    );
  };
  return (
    <Form label="A soil sample" error={add.error ?? mark.error} onSubmit={submit}>
      <Fields $columns={4}>
        {spots.length > 0 && (
          <PickField
            label="Spot"
            name="spot_id"
            value={v.spot_id || null}
            options={[
              ...spots.map((s) => ({ key: `${s.id}`, text: s.name })),
              { key: ANOTHER, text: "Another place" },
            ]}
            onChange={(spot_id) => change({ spot_id })}
            placeholder="Pick one"
          />
        )}
        {another && (
          <TextField
            label={spots.length > 0 ? "Its name" : "Spot"}
            name="spot"
            value={v.spot}
            onChange={(spot) => change({ spot })}
          />
        )}
        <TextField
          label="pH"
          name="ph"
          value={v.ph}
          onChange={(ph) => change({ ph })}
          input={{ inputMode: "decimal" }}
        />
        <QuantityField
          label="Depth"
          name="depth"
          value={v.depth}
          units={depthUnits(units)}
          onChange={(depth) => change({ depth })}
        />
        <DateField
          label="Taken on"
          name="taken_on"
          value={v.taken_on}
          onChange={(taken_on) => change({ taken_on })}
        />
        <PickField
          label="Read by"
          name="how"
          value={v.how || null}
          options={options.data?.soil_hows ?? []}
          onChange={(how) => change({ how })}
          placeholder="Pick one"
        />
        {v.how === "lab" && (
          <>
            <TextField label="Laboratory" name="lab" value={v.lab} onChange={(lab) => change({ lab })} />
            <TextField
              label="Its number"
              name="number"
              value={v.number}
              onChange={(number) => change({ number })}
            />
          </>
        )}
        <TextField
          label="Anything else it says"
          name="values"
          value={v.values}
          onChange={(values) => change({ values })}
        />
      </Fields>
      {another && area.plan && (
        <PlanBeside>
          <AreaPlan
            plan={{ ...area.plan, marks: [] }}
            us={us}
            label="Plan: press where the sample was taken"
            spots={at ? [at] : []}
            onPick={(x, y) => setAt({ x, y })}
          />
          <Hint>
            Press the plan where it was taken: it becomes a fixed spot, and the next sample is taken there
            too.
          </Hint>
        </PlanBeside>
      )}
      {v.how === "lab" && (
        <Stack $gap={12} style={{ marginTop: 16 }}>
          {figures.map((row, i) => {
            const kind = kinds.find((k) => k.key === row.kind);
            return (
              <Line key={i} $columns="minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1fr) minmax(0, 2fr)">
                <PickField
                  label="Figure"
                  name={`figures.${i}.kind`}
                  value={row.kind || null}
                  options={kinds}
                  onChange={(next) =>
                    set(i, { kind: next, unit: kinds.find((k) => k.key === next)?.units[0] ?? "" })
                  }
                  placeholder="Pick one"
                />
                <TextField
                  label="Found"
                  name={`figures.${i}.value`}
                  value={`${row.value}`}
                  onChange={(value) => set(i, { value })}
                  input={{ inputMode: "decimal" }}
                />
                {kind?.units[0] ? (
                  <PickField
                    label="Unit"
                    name={`figures.${i}.unit`}
                    value={row.unit || null}
                    options={kind.units.map((u) => ({ key: u, text: u }))}
                    onChange={(unit) => set(i, { unit })}
                  />
                ) : (
                  <span />
                )}
                {kind?.extracted ? (
                  <TextField
                    label="Extraction"
                    name={`figures.${i}.method`}
                    value={row.method}
                    onChange={(method) => set(i, { method })}
                    hint="As on its card"
                  />
                ) : (
                  <span />
                )}
                <Button
                  aria-label={`Remove figure ${i + 1}`}
                  onPress={() => setFigures((rows) => rows.filter((_, j) => j !== i))}
                >
                  Remove
                </Button>
              </Line>
            );
          })}
          <div>
            <Button
              onPress={() =>
                setFigures((rows) => [...rows, { ...noFigure, method: rows[rows.length - 1]?.method ?? "" }])
              }
            >
              {figures.length ? "Another figure" : "Figures of its card"}
            </Button>
          </div>
        </Stack>
      )}
      <Fault error={add.error ?? mark.error} besides={FIELDS} />
      <Bar>
        <Button type="submit" look="main" isDisabled={add.isPending || mark.isPending}>
          Keep the sample
        </Button>
      </Bar>
    </Form>
  );
}
