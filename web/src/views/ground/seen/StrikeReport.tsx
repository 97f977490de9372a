import { useStrikeScouting } from "../../../api/scouting";
import { StrikeForm } from "../../../parts/StrikeForm";

/** Strikes a scout report. */
export function StrikeReport({ id, text, onDone }: { id: number; text: string; onDone: () => void }) {
  const strike = useStrikeScouting();
  return (
    <StrikeForm
      label={`Strike ${text}`}
      of={strike}
      onStrike={(why, then) => strike.mutate({ id, why }, then)}
      onDone={onDone}
    />
  );
}
