import { useState } from "react";
import styled from "styled-components";
import type { Quarrel } from "../api/revised";
import { Button } from "../parts/Button";
import { Hint } from "../parts/Field";
import { Ledger } from "../parts/Ledger";
import { Bar } from "../parts/Section";
import { Sheet } from "./Sheet";
import { t } from "./theme";

const Pick = styled.label`
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 8px;
  align-items: start;
  min-height: 44px;
  padding: 8px 0;
  cursor: pointer;
  overflow-wrap: anywhere;
  input {
    width: 18px;
    height: 18px;
    margin: 2px 0 0;
    accent-color: ${t.accent};
  }
`;

/** Asks, when somebody else changed the same thing meanwhile, which of both to take. */
export default function QuarrelSheet({ quarrel }: { quarrel: Quarrel }) {
  const { changes } = quarrel;
  const [taken, setTaken] = useState<Record<string, "yours" | "theirs">>({});
  const all = (whose: "yours" | "theirs") =>
    setTaken(Object.fromEntries(changes.map((c) => [c.field, whose])));
  const done = changes.every((c) => taken[c.field]);
  const save = () =>
    quarrel.settle(
      Object.fromEntries(changes.filter((c) => taken[c.field] === "theirs").map((c) => [c.field, c.value])),
    );
  return (
    <Sheet label="Changed by somebody else" onClose={() => quarrel.settle(null)}>
      <h2>Changed by somebody else</h2>
      <Hint style={{ margin: "6px 0 12px" }}>
        {changes.length
          ? "Somebody saved this while you had it open. Where yours differs from what stands now, pick one of both; nothing is saved before."
          : "Somebody saved this while you had it open, and your fields say the same. Save yours over it, or leave it."}
      </Hint>
      {changes.length > 0 && (
        <Ledger>
          <thead>
            <tr>
              <th>Field</th>
              <th>
                <Button look="quiet" onPress={() => all("yours")}>
                  Yours
                </Button>
              </th>
              <th>
                <Button look="quiet" onPress={() => all("theirs")}>
                  As it stands
                </Button>
              </th>
            </tr>
          </thead>
          <tbody>
            {changes.map((c) => (
              <tr key={c.field}>
                <th scope="row">{c.name}</th>
                {(["yours", "theirs"] as const).map((whose) => (
                  <td key={whose}>
                    <Pick>
                      <input
                        type="radio"
                        name={c.field}
                        aria-label={`${c.name}: ${whose === "yours" ? "yours" : "as it stands"}, ${c[whose]}`}
                        checked={taken[c.field] === whose}
                        onChange={() => setTaken({ ...taken, [c.field]: whose })}
                      />
                      <span>{c[whose]}</span>
                    </Pick>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      <Bar>
        <Button look="main" isDisabled={!done} onPress={save}>
          Save what is picked
        </Button>
        <Button onPress={() => quarrel.settle(null)}>Go back to the form</Button>
      </Bar>
    </Sheet>
  );
}
