import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { entryOf, useGlossary } from "../../app/glossary";
import { useAccount } from "../../app/session";
import { setSettings, useSettings } from "../../app/settings";
import { Sheet } from "../../app/Sheet";
import { shortcuts } from "../../app/shortcuts";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Bar } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { search } from "./manual";

const Keys = styled.dl`
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 8px 24px;
  margin-top: 16px;
  dt {
    font-weight: 600;
  }
  dd {
    color: ${t.soft};
  }
`;
const Hits = styled.ul`
  display: grid;
  margin-top: 8px;
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
  p {
    color: ${t.soft};
  }
  a {
    display: inline-block;
    ${t.phone} {
      padding: 10px 0;
    }
  }
`;

/** Help: the manual and the glossary, searched as one types; the keys while nothing is typed. */
export default function HelpSheet({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const { singleKeys } = useSettings();
  const words = useGlossary();
  const [typed, setTyped] = useState("");
  const sought = typed.trim().toLowerCase();
  const exact = entryOf(words, sought);
  const terms =
    sought.length > 1
      ? words.filter((w) => w !== exact && `${w.term} ${w.also.join(" ")}`.toLowerCase().includes(sought))
      : [];
  const found = search(typed);
  const manual = (to: string) => `/a/${account.slug}/help/${to}`;
  return (
    <Sheet label="Help" onClose={onClose}>
      <h2>Help</h2>
      <div style={{ marginTop: 12 }}>
        <TextField
          label="Search the manual and the glossary"
          name="help"
          value={typed}
          onChange={setTyped}
          input={{ autoFocus: true, type: "search" }}
        />
      </div>
      <div aria-live="polite">
        {sought.length > 1 && (
          <Hits aria-label="Found">
            {[...(exact ? [exact] : []), ...terms].slice(0, 4).map((w) => (
              <li key={w.term}>
                <strong>{w.term}</strong>
                <p>{w.text}</p>
              </li>
            ))}
            {found.slice(0, 6).map((hit) => (
              <li key={hit.to}>
                <Link to={manual(hit.to)} onClick={onClose}>
                  {hit.title}
                </Link>
                <p>{hit.text}</p>
              </li>
            ))}
          </Hits>
        )}
        {sought.length > 1 && !exact && !terms.length && !found.length && (
          <Hint>Nothing is written of that. Try one word, such as “calibrate”, “rate” or “wind”.</Hint>
        )}
      </div>
      {sought.length <= 1 && (
        <Keys>
          {shortcuts.map(([key, what]) => (
            <div key={key} style={{ display: "contents" }}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </Keys>
      )}
      <Bar>
        <Button look="main" onPress={onClose}>
          Close
        </Button>
        <Link to={manual("start")} onClick={onClose} style={{ alignSelf: "center" }}>
          Read the manual
        </Link>
        <Button onPress={() => setSettings({ singleKeys: !singleKeys })}>
          {singleKeys ? "Switch single keys off" : "Switch single keys on"}
        </Button>
      </Bar>
    </Sheet>
  );
}
