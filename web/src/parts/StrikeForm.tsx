import { useState } from "react";
import { say } from "../app/toast";
import { Button } from "./Button";
import { Form } from "./Form";
import { Fault } from "./Notice";
import { Bar } from "./Section";
import { TextField } from "./TextField";

interface Props {
  label: string;
  /** The change that strikes; `onStrike` sends it with the reason. */
  of: { error: Error | null; isPending: boolean };
  onStrike: (why: string, then: { onSuccess: () => void }) => void;
  onDone: () => void;
  hint?: string;
}

/** Why a record is struck, asked before it is. */
export function StrikeForm({ label, of, onStrike, onDone, hint }: Props) {
  const [why, setWhy] = useState("");
  const onSuccess = () => {
    onDone();
    say("It is struck. It stays readable, and counts for nothing.");
  };
  return (
    <Form label={label} error={of.error} onSubmit={() => onStrike(why, { onSuccess })}>
      <TextField label="Why it is struck" name="why" value={why} onChange={setWhy} hint={hint} />
      <Bar style={{ marginTop: 12 }}>
        <Button type="submit" look="stop" isDisabled={of.isPending}>
          Strike it
        </Button>
        <Button look="quiet" onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <Fault error={of.error} besides={["why"]} />
    </Form>
  );
}
