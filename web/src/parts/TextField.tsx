import type { InputHTMLAttributes, ReactNode } from "react";
import styled, { css } from "styled-components";
import { t } from "../app/theme";
import { Field } from "./Field";

export const box = css`
  width: 100%;
  min-width: 0;
  min-height: 40px;
  padding: 7px 10px;
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  border-radius: 3px;
  &[aria-invalid="true"] {
    border-color: ${t.stop};
    border-width: 2px;
  }
  &::placeholder {
    color: ${t.soft};
    opacity: 0.8;
  }
  ${t.phone} {
    min-height: 48px;
    font-size: 16px;
  }
`;

const Input = styled.input`
  ${box}
`;
const Area = styled.textarea<{ $tall: boolean }>`
  ${box}
  && {
    min-height: ${({ $tall }) => ($tall ? "168px" : "76px")};
  }
  resize: vertical;
`;

interface Props {
  label: string;
  name: string;
  value: string;
  onChange: (value: string) => void;
  hint?: ReactNode;
  needed?: boolean;
  /** Several lines; many of them, where it is pasted into. */
  lines?: boolean | "many";
  onPick?: (text: string) => void;
  input?: InputHTMLAttributes<HTMLInputElement>;
}

/** A line of text, or several. */
export function TextField({ label, name, value, onChange, hint, needed, lines, onPick, input }: Props) {
  return (
    <Field label={label} name={name} value={value} needed={needed} hint={hint} onPick={onPick}>
      {(ids) =>
        lines ? (
          <Area
            {...ids}
            $tall={lines === "many"}
            name={name}
            value={value}
            onChange={(e) => onChange(e.target.value)}
          />
        ) : (
          <Input
            autoComplete="off"
            {...input}
            {...ids}
            name={name}
            value={value}
            onChange={(e) => onChange(e.target.value)}
          />
        )
      }
    </Field>
  );
}
