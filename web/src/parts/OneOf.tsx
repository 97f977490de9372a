import type { ReactNode } from "react";
import { Label, Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";
import { needed as marked } from "./Field";

const Group = styled(RadioGroup)<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns }) => $columns}, minmax(0, 1fr));
  gap: 8px;
  > span:first-child {
    grid-column: 1 / -1;
    font-size: ${t.s13};
    font-weight: 600;
    margin-bottom: -4px;
    ${marked}
  }
  ${t.phone} {
    grid-template-columns: repeat(${({ $columns }) => Math.min($columns, 2)}, minmax(0, 1fr));
  }
`;
const Choice = styled(Radio)`
  display: grid;
  align-content: start;
  gap: 2px;
  min-height: 44px;
  padding: 8px 12px;
  border: 1px solid ${t.rule};
  border-radius: 3px;
  background: ${t.sheet};
  cursor: pointer;
  small {
    font-size: ${t.s13};
    color: ${t.soft};
  }
  svg {
    width: 100%;
    height: 64px;
    margin-bottom: 4px;
    fill: none;
    stroke: currentColor;
    stroke-width: 1.6;
    stroke-linejoin: round;
    stroke-linecap: round;
  }
  &[data-selected] {
    border-color: ${t.accent};
    box-shadow: inset 3px 0 0 ${t.accent};
    background: ${t.wash};
    font-weight: 600;
    small {
      font-weight: 400;
    }
  }
  &[data-focus-visible] {
    outline: 2px solid ${t.accent};
    outline-offset: 2px;
  }
`;

export interface Chosen {
  key: string;
  text: string;
  note?: string;
  picture?: ReactNode;
}

interface Props {
  label: string;
  value: string | null;
  options: Chosen[];
  onChange: (key: string) => void;
  columns?: number;
  needed?: boolean;
}

/** One of a few that are all seen at once: a press picks, arrow keys go round. */
export function OneOf({ label, value, options, onChange, columns = 1, needed }: Props) {
  return (
    <Group value={value} onChange={onChange} $columns={columns}>
      <Label data-needed={needed || undefined}>{label}</Label>
      {options.map((o) => (
        <Choice key={o.key} value={o.key}>
          {o.picture}
          <span>{o.text}</span>
          {o.note && <small>{o.note}</small>}
        </Choice>
      ))}
    </Group>
  );
}
