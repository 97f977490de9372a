import { Button, DialogTrigger, ListBox, ListBoxItem, Text } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";
import { FaultText, Hint } from "./Field";
import { useFault } from "./faults";
import { Button as Plain } from "./Button";
import { Pop, type Option } from "./PickField";
import { isLong, nothingFound, Sought } from "./Sought";

const Root = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  align-content: start;
  min-width: 0;
`;
const Name = styled.span`
  font-size: ${t.s13};
  font-weight: 600;
  letter-spacing: 0.01em;
`;
const Face = styled(Button)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  min-height: 40px;
  padding: 7px 10px;
  text-align: left;
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  border-radius: 3px;
  cursor: pointer;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &::after {
    content: "+";
    color: ${t.soft};
    font-weight: 600;
  }
  ${t.phone} {
    min-height: 48px;
  }
`;
const Groups = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 8px;
  border-bottom: 1px solid ${t.hair};
`;
const List = styled(ListBox<Option>)`
  padding: 4px 0;
  outline: none;
`;
const Item = styled(ListBoxItem)`
  display: grid;
  grid-template-columns: 20px 1fr;
  column-gap: 8px;
  padding: 8px 12px;
  cursor: pointer;
  &[data-focused] {
    background: ${t.wash};
  }
  &::before {
    content: "";
    width: 16px;
    height: 16px;
    margin-top: 3px;
    border: 1.5px solid ${t.rule};
    border-radius: 3px;
    grid-row: span 2;
  }
  &[data-selected]::before {
    background: ${t.accent};
    border-color: ${t.accent};
  }
  [slot="description"] {
    font-size: ${t.s13};
    color: ${t.soft};
    grid-column: 2;
  }
  ${t.phone} {
    padding-block: 12px;
  }
`;

export interface Group {
  text: string;
  keys: string[];
}

interface Props {
  label: string;
  /** Its label is read out alone, as in a column that has a heading. */
  hideLabel?: boolean;
  name: string;
  values: string[];
  options: Option[];
  onChange: (keys: string[]) => void;
  /** What is said where nothing is picked. */
  none?: string;
  hint?: string;
  /** What is picked, or left out again, with one press: all of a site, all of a grass. */
  groups?: Group[];
}

/** Pick any number of several. */
export function ManyField({
  label,
  hideLabel,
  name,
  values,
  options,
  onChange,
  none = "Pick",
  hint,
  groups = [],
}: Props) {
  const fault = useFault(name, values.join());
  const all = (keys: string[]) =>
    onChange(
      keys.every((k) => values.includes(k))
        ? values.filter((v) => !keys.includes(v))
        : [...new Set([...values, ...keys])],
    );
  const picked = options.filter((o) => values.includes(o.key));
  const said = picked.length > 2 ? `${picked.length} picked` : picked.map((o) => o.text).join(", ");
  return (
    <Root data-field={name}>
      {!hideLabel && <Name>{label}</Name>}
      <DialogTrigger>
        <Face aria-label={`${said || none} ${label}`} aria-invalid={fault ? true : undefined}>
          <span>{said || none}</span>
        </Face>
        <Pop>
          {groups.length > 0 && (
            <Groups role="group" aria-label={`${label}: several at once`}>
              {groups.map((g) => (
                <Plain key={g.text} onPress={() => all(g.keys)}>
                  {g.text}
                </Plain>
              ))}
            </Groups>
          )}
          <Sought label={label} count={options.length}>
            <List
              renderEmptyState={nothingFound}
              aria-label={label}
              items={options.map((o) => ({ ...o, id: o.key }))}
              selectionMode="multiple"
              escapeKeyBehavior="none"
              selectedKeys={new Set(values)}
              onSelectionChange={(keys) =>
                onChange(keys === "all" ? options.map((o) => o.key) : [...keys].map(String))
              }
              autoFocus={!isLong(options.length)}
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
      </DialogTrigger>
      {fault && <FaultText fault={fault} />}
      {hint && <Hint>{hint}</Hint>}
    </Root>
  );
}
