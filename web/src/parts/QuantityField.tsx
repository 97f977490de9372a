import { useId, type ReactNode } from "react";
import styled from "styled-components";
import { t } from "../app/theme";
import { FaultText, Hint, Label, Named } from "./Field";
import { useFault } from "./faults";
import { PickField, type Option } from "./PickField";
import { Term } from "./Term";
import { box } from "./TextField";

export interface TypedQuantity {
  value: string;
  unit: string;
}

/** A quantity as a field holds it, empty in `unit` where there is none. */
export const typedOf = (
  q: { exact: string; unit: string } | null | undefined,
  unit: string,
): TypedQuantity => ({
  value: q?.exact ?? "",
  unit: q?.unit ?? unit,
});

const Root = styled.div`
  display: grid;
  gap: 4px;
  align-content: start;
  min-width: 0;
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: minmax(64px, 1fr) minmax(92px, max-content);
  > input {
    border-radius: 3px 0 0 3px;
    border-right-width: 0;
    text-align: right;
  }
  button {
    border-radius: 0 3px 3px 0;
  }
`;
const Number = styled.input`
  ${box}
  font-size: ${t.s18};
  padding-block: 4px;
`;

interface Props {
  label: string;
  name: string;
  value: TypedQuantity;
  units: Option[];
  onChange: (value: TypedQuantity) => void;
  hint?: ReactNode;
  needed?: boolean;
}

/** A number and its unit in one control. `1 1/2`, `1,720` and `2 qt` are all understood; an ambiguous unit asks. */
export function QuantityField({ label, name, value, units, onChange, hint, needed }: Props) {
  const id = useId();
  const fault = useFault(name, `${value.value} ${value.unit}`);
  return (
    <Root data-field={name}>
      <Named>
        <Label htmlFor={id} data-needed={needed || undefined}>
          {label}
        </Label>
        <Term of={label} />
      </Named>
      <Pair>
        <Number
          id={id}
          name={name}
          inputMode="decimal"
          autoComplete="off"
          value={value.value}
          aria-required={needed || undefined}
          aria-invalid={fault ? true : undefined}
          aria-describedby={`${id}-hint`}
          onChange={(e) => onChange({ ...value, value: e.target.value })}
        />
        <PickField
          label={`${label}: unit`}
          name={`${name}-unit`}
          hideLabel
          value={value.unit}
          options={units}
          onChange={(unit) => onChange({ ...value, unit })}
        />
      </Pair>
      <div id={`${id}-hint`}>
        {fault && <FaultText fault={fault} onPick={(text) => onChange({ ...value, value: text })} />}
        {hint && <Hint as="div">{hint}</Hint>}
      </div>
    </Root>
  );
}
