import { useState } from "react";
import { useMidway } from "../../api/kit";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Hint } from "../../parts/Field";
import { Notice } from "../../parts/Notice";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { tankUnits, weightUnits } from "../../parts/units";

interface Props {
  /** Granules in a hopper; else spray in a tank. */
  solid: boolean;
  /** What was loaded, where that is known. */
  loaded?: TypedQuantity;
}

/** Half the area done: how much should be left, and where does it lead? */
export function Midway({ solid, loaded }: Props) {
  const account = useAccount();
  const units = (solid ? weightUnits : tankUnits)(account.units);
  const [v, setV] = useState({
    loaded: loaded ?? { value: "", unit: units[0]!.key },
    left: { value: "", unit: units[0]!.key },
    done: "1/2",
  });
  const set = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const body = v.loaded.value.trim() && v.left.value.trim() && v.done.trim() ? v : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 80)) as typeof body;
  const found = useMidway(asked);
  const answer = body && asked && !found.error ? found.data : undefined;
  return (
    <FaultsContext.Provider value={faultsOf(asked ? found.error : null)}>
      <Fields $columns={3}>
        <QuantityField
          label="Loaded for the whole"
          name="loaded"
          value={v.loaded}
          units={units}
          onChange={(x) => set({ loaded: x })}
        />
        <TextField
          label="Done of the area"
          name="done"
          value={v.done}
          onChange={(done) => set({ done })}
          hint="1/2, 40 %"
        />
        <QuantityField
          label="Left now"
          name="left"
          value={v.left}
          units={units}
          onChange={(x) => set({ left: x })}
        />
      </Fields>
      {answer ? (
        <div data-answer="midway">
          <Notice tone={answer.good ? "note" : "caution"} word={answer.good ? "Good" : undefined}>
            {answer.sentence}
          </Notice>
          <Hint>
            {`${answer.expected} should be left now. Going on like this ${answer.ends_with} will be left at the end.`}
            {!answer.good && ` For the rest to come right, the output changes by ${answer.factor}.`}
          </Hint>
        </div>
      ) : (
        <Hint style={{ marginTop: 8 }}>
          Stop at a known part of the area, and weigh or measure what is left.
        </Hint>
      )}
    </FaultsContext.Provider>
  );
}
