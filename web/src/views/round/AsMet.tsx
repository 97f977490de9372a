import { DateField, TimeField } from "../../parts/DateField";
import { TextField } from "../../parts/TextField";

export interface Met {
  wind: string;
  air: string;
  note: string;
}

export interface Done {
  on: string;
  clock: string;
}

export const unmet: Met = { wind: "", air: "", note: "" };
export const justNow: Done = { on: "", clock: "" };

/** The weather that an application went out in, and a note. */
export function AsMet({ value, change }: { value: Met; change: (part: Partial<Met>) => void }) {
  return (
    <>
      <TextField
        label="Wind"
        name="wind"
        value={value.wind}
        onChange={(wind) => change({ wind })}
        hint="Speed and from where, as met."
      />
      <TextField
        label="Air"
        name="air"
        value={value.air}
        onChange={(air) => change({ air })}
        hint="Temperature, dew, sun."
      />
      <TextField label="Note" name="note" value={value.note} onChange={(note) => change({ note })} />
    </>
  );
}

/** When it was done; just now, where nothing is typed. */
export function DoneWhen({ value, change }: { value: Done; change: (part: Partial<Done>) => void }) {
  return (
    <>
      <DateField
        label="Done on"
        name="on"
        value={value.on}
        onChange={(on) => change({ on })}
        hint="Empty: today."
      />
      <TimeField
        label="Done at"
        name="clock"
        value={value.clock}
        onChange={(clock) => change({ clock })}
        hint="Empty: now. Clocks of the label run from it."
      />
    </>
  );
}
