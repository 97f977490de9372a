import {
  Button,
  ButtonContext,
  Label as AriaLabel,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
  Text,
} from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";
import { FaultText, Hint, Named, needed as marked } from "./Field";
import { useFault } from "./faults";
import { nothingFound, Sought } from "./Sought";
import { Term } from "./Term";

export interface Option {
  key: string;
  text: string;
  note?: string;
}

const Root = styled(Select)`
  display: grid;
  gap: 4px;
  align-content: start;
  min-width: 0;
`;
const Name = styled(AriaLabel)`
  font-size: ${t.s13};
  font-weight: 600;
  ${marked}
`;
const Face = styled(Button)`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-width: 0;
  min-height: 40px;
  padding: 7px 10px;
  text-align: left;
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  border-radius: 3px;
  cursor: pointer;
  &::after {
    content: "";
    flex: none;
    width: 7px;
    height: 7px;
    border: solid currentColor;
    border-width: 0 1.5px 1.5px 0;
    transform: translateY(-2px) rotate(45deg);
  }
  &[data-disabled] {
    cursor: default;
    color: ${t.soft};
    border-color: ${t.hair};
  }
  ${t.phone} {
    min-height: 48px;
  }
`;
const Value = styled(SelectValue)`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  [slot="description"] {
    display: none;
  }
  &[data-placeholder] {
    color: ${t.soft};
  }
`;
/** The sheet that a list of options opens on. */
export const Pop = styled(Popover)`
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  min-width: var(--trigger-width);
  max-width: min(440px, 92vw);
  overflow: auto;
`;
const List = styled(ListBox<Option>)`
  padding: 4px 0;
`;
const Item = styled(ListBoxItem)`
  display: grid;
  padding: 8px 12px;
  cursor: pointer;
  border-left: 3px solid transparent;
  &[data-focused] {
    background: ${t.wash};
  }
  &[data-selected] {
    border-left-color: ${t.accent};
    font-weight: 600;
  }
  [slot="description"] {
    font-size: ${t.s13};
    color: ${t.soft};
    font-weight: 400;
  }
  ${t.phone} {
    padding-block: 12px;
  }
`;

interface Props {
  label: string;
  name: string;
  value: string | null;
  options: Option[];
  onChange: (key: string) => void;
  placeholder?: string;
  hint?: string;
  hideLabel?: boolean;
  needed?: boolean;
}

/** Pick one of several. Type its first letters, or open the list. */
export function PickField({
  label,
  name,
  value,
  options,
  onChange,
  placeholder = "Pick",
  hint,
  hideLabel,
  needed,
}: Props) {
  const fault = useFault(name, value ?? "");
  return (
    <Root
      value={value}
      onChange={(key) => key !== null && onChange(String(key))}
      placeholder={placeholder}
      isInvalid={!!fault}
      isDisabled={options.length === 0}
      aria-label={hideLabel ? label : undefined}
      data-field={name}
    >
      {!hideLabel && (
        <Named>
          <Name data-needed={needed || undefined}>{label}</Name>
          <ButtonContext.Provider value={{}}>
            <Term of={label} />
          </ButtonContext.Provider>
        </Named>
      )}
      <Face>
        <Value />
      </Face>
      {fault && <FaultText fault={fault} />}
      {hint && <Hint>{hint}</Hint>}
      <Pop>
        <Sought label={label} count={options.length}>
          <List
            items={options.map((o) => ({ ...o, id: o.key }))}
            dependencies={[options]}
            renderEmptyState={nothingFound}
          >
            {(o: Option) => (
              <Item id={o.key} textValue={`${o.text} ${o.note ?? ""}`.trim()} aria-label={o.text}>
                <Text slot="label">{o.text}</Text>
                {o.note && <Text slot="description">{o.note}</Text>}
              </Item>
            )}
          </List>
        </Sought>
      </Pop>
    </Root>
  );
}
