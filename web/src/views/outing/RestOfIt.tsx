import { useState } from "react";
import { useJobMachine, useOrderAgain, usePause, type Outing } from "../../api/outings";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

/** Stop for a while, and say why; the hours are judged again when it goes on. */
export function StopForNow({ outing }: { outing: Outing }) {
  const pause = usePause(outing.id);
  const [asked, setAsked] = useState(false);
  const [why, setWhy] = useState("");
  if (!asked) return <Button onPress={() => setAsked(true)}>Stop for now</Button>;
  return (
    <Form
      label="Stop for now"
      error={pause.error}
      onSubmit={() => pause.mutate({ why }, { onSuccess: () => setAsked(false) })}
    >
      <TextField
        label="Why does it stop?"
        name="why"
        value={why}
        hint="The wind, rain, a breakdown, called away."
        onChange={setWhy}
      />
      <Bar>
        <Button type="submit">Stop the outing</Button>
        <Button look="quiet" onPress={() => setAsked(false)}>
          Go on
        </Button>
      </Bar>
    </Form>
  );
}

/** Which machine does the next job, and how many people go on. */
export function Means({ outing, job }: { outing: Outing; job: Outing["jobs"][number] | undefined }) {
  const machine = useJobMachine(outing.id);
  const order = useOrderAgain(outing.id);
  return (
    <>
      <Fault error={machine.error ?? order.error} />
      {job && job.machines.length > 1 && (
        <PickField
          label={`${job.title}: with`}
          name="machine_id"
          value={`${job.machine_id}`}
          options={job.machines}
          onChange={(key) => machine.mutate({ position: job.position, machine_id: Number(key) })}
        />
      )}
      <PickField
        label="People from here on"
        name="people"
        value={`${outing.people}`}
        options={[1, 2, 3, 4, 5, 6].map((n) => ({ key: `${n}`, text: n === 1 ? "1 person" : `${n} people` }))}
        onChange={(key) => order.mutate({ people: Number(key) })}
      />
      <Button onPress={() => order.mutate({})} isDisabled={order.isPending}>
        Order the rest again from now
      </Button>
    </>
  );
}
