import { useState } from "react";
import { useSignIn } from "../../app/session";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

export function SignInForm() {
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const signIn = useSignIn();
  return (
    <Form label="Sign in" error={signIn.error} onSubmit={() => signIn.mutate({ username, password })}>
      <Stack $gap={16}>
        <h2>Sign in</h2>
        <TextField
          label="Sign-in name"
          name="username"
          value={username}
          onChange={setUsername}
          input={{ autoComplete: "username", autoFocus: true, autoCapitalize: "none" }}
        />
        <TextField
          label="Password"
          name="password"
          value={password}
          onChange={setPassword}
          input={{ type: "password", autoComplete: "current-password" }}
        />
        <Fault error={signIn.error} besides={["username", "password"]} />
        <div>
          <Button look="main" type="submit" isDisabled={signIn.isPending}>
            Sign in
          </Button>
        </div>
      </Stack>
    </Form>
  );
}
