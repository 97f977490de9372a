import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Switch } from "../../parts/Switch";
import { dialUnits } from "../../parts/units";
import type { Picked } from "./state";

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 260px) minmax(0, 1fr);
  gap: 8px 24px;
  align-items: end;
  margin-block: 12px 4px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  machine: Schemas["MachineOut"];
  picked: Picked;
  change: (part: Partial<Picked>) => void;
}

/** Where a hose-end's dial stands, and whether the product goes into its bottle as it is. */
export function Hose({ machine, picked, change }: Props) {
  const units = dialUnits(useAccount().units);
  const unit = machine.dial_unit || units[0]!.key;
  return (
    <Row>
      {machine.positions.length > 0 ? (
        <PickField
          label="Dial"
          name="dial"
          value={picked.dial.value}
          options={[
            {
              key: "",
              text: "As it fits",
              note: picked.undiluted ? "nearest to the output" : "lowest that leaves room for water",
            },
            ...machine.positions.map((p) => ({ key: p.exact, text: p.text })),
          ]}
          onChange={(value) => change({ dial: { value, unit: machine.positions[0]!.unit } })}
        />
      ) : (
        <QuantityField
          label="Dial draws"
          name="dial"
          value={{ ...picked.dial, unit: picked.dial.unit || unit }}
          units={units}
          onChange={(dial) => change({ dial })}
          hint="Empty: solved for the rate, where the hose has been timed."
        />
      )}
      <Switch value={picked.undiluted} onChange={(undiluted) => change({ undiluted })}>
        Undiluted: the product goes into the bottle as it is, no water
      </Switch>
    </Row>
  );
}
