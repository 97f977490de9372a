import { useState } from "react";
import { useDraft } from "../../app/draft";
import { unitsHere } from "../../app/locale";
import { useOpenAccount, type Account } from "../../app/session";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { OneOf } from "../../parts/OneOf";
import { Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

type Keeps = Account["keeps"];
const keeps: { key: Keeps; text: string; note: string; name: string; label: string }[] = [
  { key: "lawn", text: "My lawn", note: "One place, for myself", name: "My lawn", label: "Call it" },
  {
    key: "grounds",
    text: "Grounds",
    note: "Of a club, a course or a school",
    name: "",
    label: "Name of the club, course or school",
  },
  {
    key: "customers",
    text: "Customers’ properties",
    note: "A business that looks after many",
    name: "",
    label: "Name of the business",
  },
];
const blank = {
  keeps: "lawn" as Keeps,
  name: null as string | null,
  units: unitsHere(),
  full_name: "",
  username: null as string | null,
};

/** A sign-in name made of one's first name, until one types another. */
const madeOf = (name: string) =>
  (name.trim().split(/\s+/)[0] ?? "")
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}._-]/gu, "");

/** Begin with an empty account. Everything but the password survives a reload. */
export default function FoundForm() {
  const { value, change, clear } = useDraft("start-here", blank);
  const [password, setPassword] = useState("");
  const found = useOpenAccount();
  const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const kind = keeps.find((k) => k.key === value.keeps)!;
  const name = value.name ?? kind.name;
  const username = value.username ?? madeOf(value.full_name);
  const submit = () =>
    found.mutate({ ...value, name, username, password, time_zone }, { onSuccess: () => clear() });
  return (
    <Form label="Start here" error={found.error} onSubmit={submit}>
      <Stack $gap={16}>
        <h2>Start here</h2>
        <OneOf
          label="What do you look after?"
          value={value.keeps}
          options={keeps}
          onChange={(key) => change({ keeps: key as Keeps })}
        />
        <TextField
          needed
          label={kind.label}
          name="name"
          value={name}
          onChange={(next) => change({ name: next })}
          hint="Sheets and records carry it."
        />
        <OneOf
          label="Units"
          columns={2}
          value={value.units}
          options={[
            { key: "us", text: "US", note: "1000 ft², gal, fl oz, lb" },
            { key: "metric", text: "Metric", note: "100 m², L, mL, kg" },
          ]}
          onChange={(units) => change({ units: units as "us" | "metric" })}
        />
        <TextField
          needed
          label="Your name"
          name="full_name"
          value={value.full_name}
          onChange={(full_name) => change({ full_name })}
          hint="As the records should carry it."
          input={{ autoComplete: "name" }}
        />
        <TextField
          needed
          label="Sign-in name"
          name="username"
          value={username}
          onChange={(next) => change({ username: next })}
          input={{ autoComplete: "username", autoCapitalize: "none" }}
        />
        <TextField
          needed
          label="Password"
          name="password"
          value={password}
          onChange={setPassword}
          hint="Ten characters or more."
          input={{ type: "password", autoComplete: "new-password" }}
        />
        <Hint>{`Fields with * must be filled in. The clock is that of ${time_zone.replaceAll("_", " ")}; places and clocks of sites are set later.`}</Hint>
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
