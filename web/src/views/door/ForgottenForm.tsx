import { useState } from "react";
import { useForgotten } from "../../api/people";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

/** Ask for a link with which to set a new password. */
export default function ForgottenForm() {
  const [username, setUsername] = useState("");
  const ask = useForgotten();
  return (
    <Form label="Forgotten password" error={ask.error} onSubmit={() => ask.mutate({ username })}>
      <Stack $gap={16}>
        <h2>Forgotten your password?</h2>
        <TextField
          label="Sign-in name"
          name="username"
          value={username}
          onChange={setUsername}
          input={{ autoComplete: "username", autoFocus: true, autoCapitalize: "none" }}
        />
        <Fault error={ask.error} besides={["username"]} />
        {ask.data && (
          <Notice tone="note" word="Noted">
            {ask.data.sentence}
          </Notice>
        )}
        <div>
          <Button look="main" type="submit" isDisabled={ask.isPending || !username}>
            Ask for a link
          </Button>
        </div>
      </Stack>
    </Form>
  );
}
