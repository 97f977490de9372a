import { useSkipStop, type Act, type Outing } from "../../api/outings";
import { Button } from "../../parts/Button";
import { AskWhy } from "../../parts/AskWhy";

type Stop = Act["stops"][number];

interface Skipping {
  what: string;
  error: Error | null;
  skip: (why: string, done: () => void) => void;
}

/** A way to skip something, which asks why. */
export function Skip({ what, error, skip }: Skipping) {
  return (
    <AskWhy
      act={`Skip ${what}`}
      look="quiet"
      label={`Why is ${what} skipped?`}
      hint="Locked gate, a dog, people on it, rain."
      send="Skip it"
      leave="Keep it"
      error={error}
      onSend={skip}
    />
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
