import { useState } from "react";
import styled from "styled-components";
import { useLookAtTurn, useSetTurn, useTurnAsJob, type Step, type Turn } from "../../../api/programme";
import { useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { say } from "../../../app/toast";
import { useSettled } from "../../../app/useSettled";
import { Button } from "../../../parts/Button";
import { DateField } from "../../../parts/DateField";
import { Facts } from "../../../parts/Facts";
import { FaultsContext, faultsOf } from "../../../parts/faults";
import { Findings } from "../../../parts/Findings";
import { Fault } from "../../../parts/Notice";
import { Bar, Fields } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";
import { useOpenJob } from "../../reckon/openJob";
import { marks, open, tones } from "./stands";

const Panel = styled.section`
  padding: 12px 14px 14px;
  margin: 6px 0 10px;
  border: 1px solid ${t.rule};
  border-left: 3px solid ${t.accent};
  h4 {
    margin: 0 0 6px;
    font-size: ${t.s15};
  }
`;

interface Props {
  turn: Turn;
  step: Step | undefined;
  /** The day it is looked at on; empty for its own. */
  day: string;
  onDay: (day: string) => void;
}

/** One turn: how it stands, what the gate says of another day, and what can be done with it. */
export function TurnPanel({ turn, step, day, onDay }: Props) {
  const may = useMay("applicator");
  const set = useSetTurn();
  const asJob = useTurnAsJob();
  const openJob = useOpenJob();
  const [why, setWhy] = useState("");
  const where = { step_id: turn.step_id, area_id: turn.area_id, number: turn.number };
  const wanted = useSettled(day && day !== turn.begin ? day : "", 120);
  const look = useLookAtTurn(wanted ? { ...where, on: wanted } : null);
  const there = wanted && !look.error ? look.data : undefined;
  const told = there ?? turn;
  const undo = () =>
    set.mutate(
      { ...where, on: turn.moved ? turn.begin : null, skipped: turn.stand === "skipped", why: "" },
      { onSuccess: () => onDay("") },
    );
  const keep = (part: { on?: string; skipped?: boolean }, words: string) =>
    set.mutate(
      { ...where, on: part.on ?? null, skipped: part.skipped ?? false, why },
      {
        onSuccess: () => {
          onDay("");
          setWhy("");
          say(words, undo);
        },
      },
    );
  const first = step?.products.find((p) => !p.instead);
  return (
    <Panel aria-label={`${turn.name} on ${turn.area}`}>
      <h4>{`${turn.name} on ${turn.area}`}</h4>
      <p style={{ color: tones[turn.stand], fontWeight: 600 }}>
        <span aria-hidden>{marks[turn.stand]} </span>
        {turn.stand_text}, {turn.day}
      </p>
      <Facts
        of={[
          ["What", turn.mix],
          ["Why then", turn.why],
          ["Water in with", turn.water],
        ]}
      />
      {(told.refused.length > 0 || told.warns.length > 0) && (
        <div style={{ marginTop: 10 }} aria-live="polite">
          <Findings of={[...told.refused, ...told.warns]} />
        </div>
      )}
      {may && open(turn) && (
        <FaultsContext.Provider value={faultsOf(set.error ?? look.error)}>
          <Fields $columns={2} style={{ marginTop: 12 }}>
            <DateField label="On another day" name="on" value={day || turn.begin || ""} onChange={onDay} />
            <TextField label="Why" name="why" value={why} onChange={setWhy} hint="Kept with it" />
          </Fields>
          <Bar style={{ marginTop: 10 }}>
            <Button
              look="main"
              isDisabled={!day || day === turn.begin || set.isPending || !!there?.refused.length}
              onPress={() => keep({ on: day }, "Moved.")}
            >
              Move it
            </Button>
            <Button isDisabled={set.isPending} onPress={() => keep({ skipped: true }, "Skipped.")}>
              Skip it
            </Button>
          </Bar>
        </FaultsContext.Provider>
      )}
      {may && (turn.moved || turn.stand === "skipped") && (
        <Bar style={{ marginTop: 6 }}>
          <Button look="quiet" onPress={() => set.mutate({ ...where, on: null, skipped: false, why: "" })}>
            {turn.moved ? "Back to its own day" : "Not skipped after all"}
          </Button>
        </Bar>
      )}
      <Fault error={set.error ?? asJob.error} besides={["on", "why"]} />
      {open(turn) && first && (
        <Bar style={{ marginTop: 10 }}>
          <Button
            isDisabled={asJob.isPending}
            onPress={() => asJob.mutate(where, { onSuccess: (found) => openJob(found) })}
          >
            Reckon it
          </Button>
        </Bar>
      )}
    </Panel>
  );
}
