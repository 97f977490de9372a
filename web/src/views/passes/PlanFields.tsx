import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { lengthUnits, windUnits } from "../../parts/units";
import { useState } from "react";
import type { Typed } from "./state";

interface Props {
  typed: Typed;
  change: (part: Partial<Typed>) => void;
  areas: Schemas["AreaOut"][] | undefined;
  machines: Schemas["MachineOut"][] | undefined;
  hasPlan: boolean;
}

const seconds = [
  { key: "none", text: "One round", note: "The whole rate at once" },
  { key: "right_angles", text: "Two, at right angles", note: "Half the rate in each" },
  { key: "diagonal", text: "Two, the second diagonal", note: "Half the rate in each" },
  { key: "offset", text: "Two, the second between", note: "Half the rate in each, half a pass aside" },
];

/** What a plan is made of: where, with what, how far apart, which way, and along the edge. */
export function PlanFields({ typed: v, change, areas = [], machines = [], hasPlan }: Props) {
  const account = useAccount();
  const [more, setMore] = useState(false);
  const machine = machines.find((m) => m.id === v.machine);
  return (
    <>
      <Fields $columns={4}>
        <PickField
          label="Area"
          name="area"
          value={v.area === null ? null : `${v.area}`}
          options={areas.map((a) => ({ key: `${a.id}`, text: a.name, note: a.size.text }))}
          onChange={(key) => change({ area: Number(key) })}
        />
        <PickField
          label="Machine"
          name="machine"
          value={v.machine === null ? null : `${v.machine}`}
          options={machines
            .filter((m) => m.form !== "hose_end")
            .map((m) => ({
              key: `${m.id}`,
              text: m.name,
              note: m.swath ? `passes ${m.swath} apart` : "swath not known",
            }))}
          onChange={(key) => change({ machine: Number(key) })}
        />
        <QuantityField
          label="Passes apart"
          name="spacing"
          value={v.spacing}
          units={lengthUnits(account.units)}
          onChange={(spacing) => change({ spacing })}
          hint={machine?.swath ? `Empty: ${machine.swath}, as measured.` : undefined}
        />
        <PickField
          label="Rounds"
          name="second"
          value={v.second}
          options={seconds}
          onChange={(second) => change({ second: second as Typed["second"] })}
        />
        <PickField
          label="Rings along the edge"
          name="edges"
          value={v.edges}
          options={["0", "1", "2", "3"].map((n) => ({
            key: n,
            text: n === "0" ? "None" : n,
            note: n === "0" ? "The throw reaches the edge" : undefined,
          }))}
          onChange={(edges) => change({ edges })}
        />
        <TextField
          label="Direction, degrees"
          name="direction"
          value={v.direction}
          onChange={(direction) => change({ direction })}
          hint="Empty: the best. 0 runs left to right."
          input={{ inputMode: "decimal" }}
        />
        {!hasPlan && (
          <QuantityField
            label="Its long side"
            name="length"
            value={v.length}
            units={lengthUnits(account.units)}
            onChange={(length) => change({ length })}
            hint="Empty: a square of its size."
          />
        )}
        {more && (
          <>
            <PickField
              label="Mower’s guide stripes"
              name="guides"
              value={v.guides}
              options={["0", "2", "3", "4", "5"].map((n) => ({
                key: n,
                text: n === "0" ? "None" : `Every ${n}`,
              }))}
              onChange={(guides) => change({ guides })}
            />
            <QuantityField
              label="Pace"
              name="pace"
              value={v.pace}
              units={windUnits(account.units)}
              onChange={(pace) => change({ pace })}
              hint="Empty: by the calibration in use."
            />
          </>
        )}
      </Fields>
      {more && (
        <>
          <Switch value={v.edges_last} onChange={(edges_last) => change({ edges_last })}>
            The rings come last
          </Switch>
          <Switch value={v.keep_off} onChange={(keep_off) => change({ keep_off })}>
            Leave out what must be kept off, with its buffer
          </Switch>
        </>
      )}
      <Bar style={{ marginTop: 8 }}>
        <Button look="quiet" onPress={() => setMore(!more)}>
          {more ? "Fewer choices" : "Guides, pace, order, buffers"}
        </Button>
      </Bar>
    </>
  );
}
