import { useJobMachine, useOrderAgain, usePause, type Outing } from "../../api/outings";
import { Button } from "../../parts/Button";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { AskWhy } from "../../parts/AskWhy";

/** Stop for a while, and say why; the hours are judged again when it goes on. */
export function StopForNow({ outing }: { outing: Outing }) {
  const pause = usePause(outing.id);
  return (
    <AskWhy
      act="Stop for now"
      label="Why does it stop?"
      hint="The wind, rain, a breakdown, called away."
      send="Stop the outing"
      leave="Go on"
      error={pause.error}
      onSend={(why, done) => pause.mutate({ why }, { onSuccess: done })}
    />
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
