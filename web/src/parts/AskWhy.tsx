import { useState } from "react";
import { Button } from "./Button";
import { Form } from "./Form";
import { Bar } from "./Section";
import { TextField } from "./TextField";

interface Props {
  /** What its button says, and what the form is called. */
  act: string;
  look?: "plain" | "quiet";
  label: string;
  hint: string;
  send: string;
  leave: string;
  error: Error | null;
  onSend: (why: string, done: () => void) => void;
}

/** A button for what needs a reason: pressed, it asks for it first. */
export function AskWhy({ act, look = "plain", label, hint, send, leave, error, onSend }: Props) {
  const [asked, setAsked] = useState(false);
  const [why, setWhy] = useState("");
  const close = () => setAsked(false);
  if (!asked)
    return (
      <Button look={look} onPress={() => setAsked(true)}>
        {act}
      </Button>
    );
  return (
    <Form label={act} error={error} onSubmit={() => onSend(why, close)}>
      <TextField label={label} name="why" value={why} hint={hint} onChange={setWhy} />
      <Bar>
        <Button type="submit">{send}</Button>
        <Button look="quiet" onPress={close}>
          {leave}
        </Button>
      </Bar>
    </Form>
  );
}
