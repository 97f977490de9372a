import styled from "styled-components";
import { useScoreTrial, type Trial } from "../../api/trials";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { TrialMap } from "./TrialMap";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(88px, 1fr));
  gap: 12px;
  margin: 14px 0;
  ${t.phone} {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
`;

/** Score every plot of one day, blind: the map shows numbers, not what stands on them. */
export function ScoreForm({ trial, onDone }: { trial: Trial; onDone: () => void }) {
  const account = useAccount();
  const draft = useDraft(`${account.slug}/trial/${trial.id}/scores`, {
    on: todayHere(),
    marks: {} as Record<string, string>,
  });
  const { on, marks } = draft.value;
  const score = useScoreTrial(trial.id);
  const done = trial.plots.filter((p) => marks[p.id]?.trim()).length;
  return (
    <Form
      label="Scores"
      error={score.error}
      onSubmit={() =>
        score.mutate(
          { on, scores: trial.plots.map((p) => ({ plot_id: p.id, score: marks[p.id] ?? "" })) },
          {
            onSuccess: () => {
              draft.clear({ on: todayHere(), marks: {} });
              say("The scores are kept.");
              onDone();
            },
          },
        )
      }
    >
      <Hint style={{ marginBottom: 12 }}>
        Blind: numbers alone, so that nobody scores what they hope for. One person scores all of them, in one
        light. {trial.scale}
      </Hint>
      {trial.plan && (
        <TrialMap
          plan={{ ...trial.plan, marks: [] }}
          plots={trial.plots}
          us={account.units === "us"}
          label="Plots by their numbers"
        />
      )}
      <Grid>
        {trial.plots.map((p, i) => (
          <TextField
            key={p.id}
            label={`Plot ${p.number}`}
            name={`scores.${i}.score`}
            value={marks[p.id] ?? ""}
            onChange={(mark) => draft.change((now) => ({ marks: { ...now.marks, [p.id]: mark } }))}
            input={{ inputMode: "decimal" }}
          />
        ))}
      </Grid>
      <Fields $columns={4}>
        <DateField
          label="Looked at on"
          name="on"
          value={on}
          onChange={(next) => draft.change({ on: next })}
        />
      </Fields>
      <Fault error={score.error} besides={["on", ...trial.plots.map((_, i) => `scores.${i}.score`)]} />
      <Bar>
        <Button type="submit" look="main" isDisabled={score.isPending || done === 0}>
          {done < trial.plots.length ? `Keep ${done} of ${trial.plots.length} scores` : "Keep the scores"}
        </Button>
        <Button look="quiet" onPress={onDone}>
          Not now
        </Button>
      </Bar>
    </Form>
  );
}
