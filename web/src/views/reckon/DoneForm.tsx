import { useState } from "react";
import { useNavigate } from "react-router";
import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { AsMet, unmet } from "../round/AsMet";
import { asPlanned, UsedFields, usedIn } from "../round/UsedFields";

interface Props {
  job: Schemas["JobIn"];
  answer: Schemas["JobOut"];
  /** Whether the answer is of the job as it stands typed. */
  settled: boolean;
  onDone: () => void;
  onClose: () => void;
}

/** A job that is done already, straight into the book: what was really used, the weather, and why where the label forbids it. */
export function DoneForm({ job, answer, settled, onDone, onClose }: Props) {
  const account = useAccount();
  const navigate = useNavigate();
  const mix = answer.mix.map((c) => ({ product_id: c.product_id, product: c.product, planned: c.amount }));
  const [used, setUsed] = useState(() => asPlanned(mix));
  const [words, setWords] = useState({ ...unmet, by: "", reason: "" });
  const book = useChange((path, given: Schemas["DoneIn"]) =>
    read(send.POST("/api/accounts/{account}/rounds/done", { params: { path }, body: given })),
  );
  const { reason, ...weather } = words;
  const finish: Schemas["FinishIn"] = {
    ...weather,
    used: usedIn(used),
    treated: [],
    setting: "",
    teach: false,
    clock: "",
  };
  const submit = () =>
    book.mutate(
      { job, finish, reason },
      {
        onSuccess: (made) => {
          say("It is in the book.");
          onDone();
          void navigate(`/a/${account.slug}/book/${made.length === 1 ? made[0]!.id : ""}`);
        },
      },
    );
  const word = (name: "by" | "reason", label: string, hint?: string) => (
    <TextField
      label={label}
      name={name}
      value={words[name]}
      onChange={(text) => setWords((now) => ({ ...now, [name]: text }))}
      hint={hint}
    />
  );
  return (
    <Section title="It is done already">
      <Hint style={{ marginBottom: 12 }}>
        It goes in the book as it was, for the day and hour above. For another day press “Another day or
        hour”.
      </Hint>
      {answer.refused && (
        <Notice tone="stop" word="Against the label">
          What happened is recorded all the same, and marked. Say why it was done.
        </Notice>
      )}
      <Form label="It is done already" error={book.error} onSubmit={submit}>
        <Fields $columns={3}>
          <UsedFields mix={mix} used={used} onChange={setUsed} />
          <AsMet value={words} change={(part) => setWords((now) => ({ ...now, ...part }))} />
          {word("by", "Done by", "Empty if it was you.")}
          {answer.refused && word("reason", "Reason", "Why it was done all the same.")}
        </Fields>
        <Fault error={book.error} besides={["used", "wind", "air", "note", "by", "reason"]} />
        <Bar>
          <Button look="main" type="submit" isDisabled={book.isPending || !settled}>
            Put it in the book
          </Button>
          <Button onPress={onClose}>Close</Button>
        </Bar>
      </Form>
    </Section>
  );
}
