import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Hint } from "../../parts/Field";
import { Notice } from "../../parts/Notice";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";

const Rows = styled.ul`
  display: grid;
  margin-top: 12px;
`;
const Row = styled.li`
  border-bottom: 1px solid ${t.hair};
  &[data-left] {
    color: ${t.soft};
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }
`;
const Said = styled.span`
  display: grid;
  grid-template-columns: minmax(96px, 1fr) minmax(0, 2fr) minmax(0, 3fr);
  gap: 2px 16px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  > :first-child,
  q {
    font-size: ${t.s13};
    color: ${t.soft};
  }
  q {
    overflow-wrap: anywhere;
  }
`;
const Left = styled.details`
  margin-top: 12px;
  font-size: ${t.s13};
  color: ${t.soft};
  summary {
    cursor: pointer;
    min-height: 32px;
  }
`;

interface Props {
  text: string;
  onText: (text: string) => void;
  read: Schemas["PastedOut"] | undefined;
  /** The findings, by their places, that are not taken. */
  without: number[];
  onWithout: (without: number[]) => void;
}

/** A label's text, pasted or typed off, with what was read in it beside the words it was taken from: untick what is wrong. */
export function LabelText({ text, onText, read, without, onWithout }: Props) {
  const take = (i: number, on: boolean) => onWithout(on ? without.filter((x) => x !== i) : [...without, i]);
  return (
    <div>
      <TextField
        label="Text of the label"
        name="label_text"
        lines="many"
        value={text}
        onChange={onText}
        hint="Paste it from the label’s PDF or page, or type the lines that matter: name, analysis, rate."
      />
      <div aria-live="polite">
        {read && text.trim() && read.found.length === 0 && (
          <Hint>Nothing of a label was found in it yet. A rate reads like “3 lb per 1,000 sq ft”.</Hint>
        )}
        {read && read.found.length > 0 && (
          <Rows aria-label="Read in the label">
            {read.found.map((f, i) => (
              <Row key={`${f.field}-${i}`} data-left={!f.taken || undefined}>
                <Switch value={!without.includes(i)} onChange={(on) => take(i, on)}>
                  <Said>
                    <span>{f.name}</span>
                    <span>{f.asks ? `${f.text}: which ounce? The card asks.` : f.text}</span>
                    {f.source !== f.text && <q>{f.source}</q>}
                  </Said>
                </Switch>
              </Row>
            ))}
          </Rows>
        )}
        {read?.cut && <Notice tone="note">Only the first 30,000 characters were read.</Notice>}
      </div>
      {read && text.trim() && read.left.length > 0 && (
        <Left>
          <summary>{`${read.left.length} ${read.left.length === 1 ? "line" : "lines"} of which nothing was taken`}</summary>
          {read.left.map((line, i) => (
            <p key={i}>{line}</p>
          ))}
        </Left>
      )}
    </div>
  );
}
