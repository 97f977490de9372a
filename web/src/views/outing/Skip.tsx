import { useState } from "react";
import { useSkipStop, type Act, type Outing } from "../../api/outings";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Bar } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

type Stop = Act["stops"][number];

interface Skipping {
  what: string;
  error: Error | null;
  skip: (why: string, done: () => void) => void;
}

/** A way to skip something, which asks why. */
export function Skip({ what, error, skip }: Skipping) {
  const [asked, setAsked] = useState(false);
  const [why, setWhy] = useState("");
  const close = () => setAsked(false);
  if (!asked) return <Button look="quiet" onPress={() => setAsked(true)}>{`Skip ${what}`}</Button>;
  return (
    <Form label={`Skip ${what}`} error={error} onSubmit={() => skip(why, close)}>
      <TextField
        label={`Why is ${what} skipped?`}
        name="why"
        value={why}
        hint="Locked gate, a dog, people on it, rain."
        onChange={setWhy}
      />
      <Bar>
        <Button type="submit">Skip it</Button>
        <Button look="quiet" onPress={close}>
          Keep it
        </Button>
      </Bar>
    </Form>
  );
}

export function StopActs({ outing, stop, begun }: { outing: Outing; stop: Stop; begun: boolean }) {
  const skip = useSkipStop(outing.id);
  const stop_id = stop.id;
  if (stop_id === null || stop.state === "done" || begun) return null;
  if (stop.state === "skipped")
    return (
      <Button look="quiet" onPress={() => skip.mutate({ stop_id, why: "", skip: false })}>
        Put it back
      </Button>
    );
  return (
    <Skip
      what={stop.area}
      error={skip.error}
      skip={(why, done) => skip.mutate({ stop_id, why, skip: true }, { onSuccess: done })}
    />
  );
}
