import { useState } from "react";
import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

/** Keep the job under a name, to reckon it again. */
export function KeepMix({ job, onDone }: { job: Schemas["JobIn"]; onDone: () => void }) {
  const [name, setName] = useState("");
  const keep = useChange((path, body: Schemas["KeptMixIn"]) =>
    read(send.POST("/api/accounts/{account}/mixes", { params: { path }, body })),
  );
  const submit = () =>
    keep.mutate(
      { name, job },
      {
        onSuccess: (kept) => {
          say(`${kept.name} is kept; find it under Kept mixes, or call it by its name on the line.`);
          onDone();
        },
      },
    );
  return (
    <Form label="Keep the mix" error={keep.error} onSubmit={submit}>
      <Fields>
        <TextField
          label="Name of the mix"
          name="name"
          value={name}
          onChange={setName}
          hint="Products, rates, ground and machine are kept; the day is not."
        />
      </Fields>
      <Fault error={keep.error} besides={["name"]} />
      <Bar>
        <Button look="main" type="submit" isDisabled={keep.isPending}>
          Keep it
        </Button>
        <Button onPress={onDone}>Close</Button>
      </Bar>
    </Form>
  );
}
