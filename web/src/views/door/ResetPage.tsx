import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useReset } from "../../api/people";
import { useSession } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { DoorLayout } from "./DoorLayout";

/** Where a link leads with which one sets a new password. */
export function ResetPage() {
  const { uid = "", token = "" } = useParams();
  const navigate = useNavigate();
  const [password, setPassword] = useState("");
  const { isPending: asking } = useSession(); // what is sent carries the token that it tells
  const reset = useReset();
  const submit = () =>
    reset.mutate(
      { uid, token, password },
      {
        onSuccess: () => {
          say("The new password counts.");
          void navigate("/", { replace: true });
        },
      },
    );
  return (
    <DoorLayout>
      <Form label="New password" error={reset.error} onSubmit={submit}>
        <Stack $gap={16}>
          <h2>Set a new password</h2>
          <TextField
            label="New password"
            name="password"
            value={password}
            onChange={setPassword}
            hint="Ten characters or more. You are signed out everywhere else."
            input={{ type: "password", autoComplete: "new-password", autoFocus: true }}
          />
          <Fault error={reset.error} besides={["password"]} />
          <div>
            <Button look="main" type="submit" isDisabled={reset.isPending || asking}>
              Set it and come in
            </Button>
          </div>
        </Stack>
      </Form>
      <div>
        <Link to="/">Sign in instead</Link>
      </div>
    </DoorLayout>
  );
}
