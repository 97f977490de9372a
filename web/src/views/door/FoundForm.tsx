import { useState } from "react";
import { useDraft } from "../../app/draft";
import { useOpenAccount } from "../../app/session";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

const blank = { name: "", units: "us" as "us" | "metric", full_name: "", username: "" };

/** Begin with an empty account. Everything but the password survives a reload. */
export function FoundForm() {
  const { value, change, clear } = useDraft("start-here", blank);
  const [password, setPassword] = useState("");
  const found = useOpenAccount();
  const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const submit = () => found.mutate({ ...value, password, time_zone }, { onSuccess: () => clear() });
  return (
    <Form label="Start here" error={found.error} onSubmit={submit}>
      <Stack $gap={16}>
        <h2>Start here</h2>
        <TextField
          label="Name of the place"
          name="name"
          value={value.name}
          onChange={(name) => change({ name })}
          hint="A lawn, a club, a business: what sheets and records will carry."
        />
        <PickField
          label="Units"
          name="units"
          value={value.units}
          options={[
            { key: "us", text: "US", note: "1000 ft², gal, fl oz, lb" },
            { key: "metric", text: "Metric", note: "100 m², L, mL, kg" },
          ]}
          onChange={(units) => change({ units: units as "us" | "metric" })}
        />
        <TextField
          label="Your name"
          name="full_name"
          value={value.full_name}
          onChange={(full_name) => change({ full_name })}
          hint="As the records should carry it."
        />
        <TextField
          label="Sign-in name"
          name="username"
          value={value.username}
          onChange={(username) => change({ username })}
          input={{ autoComplete: "username", autoCapitalize: "none" }}
        />
        <TextField
          label="Password"
          name="password"
          value={password}
          onChange={setPassword}
          hint="Ten characters or more."
          input={{ type: "password", autoComplete: "new-password" }}
        />
        <Fault error={found.error} besides={["name", "units", "full_name", "username", "password"]} />
        <div>
          <Button look="main" type="submit" isDisabled={found.isPending}>
            Start
          </Button>
        </div>
      </Stack>
    </Form>
  );
}
