import type { ReactNode } from "react";
import { useId } from "react";
import styled, { css } from "styled-components";
import type { FieldFault } from "../api/client";
import { t } from "../app/theme";
import { Button } from "./Button";
import { useFault } from "./faults";
import { Mend } from "./Mend";
import { Term } from "./Term";

const Row = styled.div`
  display: grid;
  gap: 4px;
  align-content: start;
  min-width: 0;
`;

/** What marks a field that must be filled in. */
export const needed = css`
  &[data-needed]::after {
    content: " *" / "";
    color: ${t.accent};
  }
`;

export const Label = styled.label`
  font-size: ${t.s13};
  font-weight: 600;
  letter-spacing: 0.01em;
  ${needed}
`;

/** A label with the way to what its word means beside it. */
export const Named = styled.div`
  display: flex;
  align-items: baseline;
  gap: 6px;
  min-width: 0;
`;

export const Hint = styled.p`
  font-size: ${t.s13};
  color: ${t.soft};
`;

const Told = styled.div`
  font-size: ${t.s13};
  color: ${t.stop};
  border-left: 3px solid ${t.stop};
  padding-left: 8px;
`;

const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
`;

/** A fault beside its field: what is wrong, what to do, and the readings to pick from where there are several. */
export function FaultText({
  fault,
  id,
  onPick,
}: {
  fault: FieldFault;
  id?: string;
  onPick?: (text: string) => void;
}) {
  return (
    <Told id={id} role="alert">
      {fault.problem} {fault.remedy}
      <Mend way={fault.mend} />
      {onPick && fault.choices && fault.choices.length > 0 && (
        <Choices>
          {fault.choices.map((c) => (
            <Button key={c.text} onPress={() => onPick(c.text)}>
              {c.text}
            </Button>
          ))}
        </Choices>
      )}
    </Told>
  );
}

interface Props {
  label: string;
  name: string;
  /** What stands in it, so that its fault goes when that is mended. */
  value: string;
  /** Whether it must be filled in. */
  needed?: boolean;
  hint?: ReactNode;
  onPick?: (text: string) => void;
  children: (ids: {
    id: string;
    "aria-describedby": string;
    "aria-invalid": boolean | undefined;
    "aria-required": boolean | undefined;
  }) => ReactNode;
}

/** A label, a control, a hint and the fault that the form found in it. */
export function Field({ label, name, value, needed, hint, onPick, children }: Props) {
  const id = useId();
  const fault = useFault(name, value);
  return (
    <Row data-field={name}>
      <Named>
        <Label htmlFor={id} data-needed={needed || undefined}>
          {label}
        </Label>
        <Term of={label} />
      </Named>
      {children({
        id,
        "aria-describedby": `${id}-hint`,
        "aria-invalid": fault ? true : undefined,
        "aria-required": needed || undefined,
      })}
      <div id={`${id}-hint`}>
        {fault && <FaultText fault={fault} onPick={onPick} />}
        {hint && <Hint as="div">{hint}</Hint>}
      </div>
    </Row>
  );
}
