import styled from "styled-components";
import { Button } from "../parts/Button";
import { Bar } from "../parts/Section";
import { setSettings, useSettings } from "./settings";
import { Sheet } from "./Sheet";
import { shortcuts } from "./shortcuts";
import { t } from "./theme";

const List = styled.dl`
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

/** The keys, and the switch for those who do not want single keys to act. */
export function ShortcutSheet({ onClose }: { onClose: () => void }) {
  const { singleKeys } = useSettings();
  return (
    <Sheet label="Keys" onClose={onClose}>
      <h2>Keys</h2>
      <List>
        {shortcuts.map(([key, what]) => (
          <div key={key} style={{ display: "contents" }}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </List>
      <Bar>
        <Button look="main" onPress={onClose}>
          Close
        </Button>
        <Button onPress={() => setSettings({ singleKeys: !singleKeys })}>
          {singleKeys ? "Switch single keys off" : "Switch single keys on"}
        </Button>
      </Bar>
    </Sheet>
  );
}
