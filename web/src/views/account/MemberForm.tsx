import { useState } from "react";
import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { roles, type RoleName } from "./roles";
import { SitesField } from "./SitesField";

const blank = {
  full_name: "",
  username: "",
  role: "applicator" as RoleName,
  licence: "",
  site_ids: [] as string[],
};

/** Add a person to the account. Everything but the password survives a reload. */
export function MemberForm() {
  const account = useAccount();
  const { value, change, clear } = useDraft(`${account.slug}/member`, blank);
  const [password, setPassword] = useState("");
  const add = useChange((path, body: Schemas["MemberIn"]) =>
    read(send.POST("/api/accounts/{account}/members", { params: { path }, body })),
  );
  const submit = () =>
    add.mutate(
      { ...value, password, site_ids: value.site_ids.map(Number) },
      {
        onSuccess: (m) => {
          clear(blank);
          setPassword("");
          say(`${m.full_name} is a member.`);
        },
      },
    );
  return (
    <Section title="Add a member">
      <Form label="Member" error={add.error} onSubmit={submit}>
        <Fields $columns={4}>
          <TextField
            label="Name"
            name="full_name"
            value={value.full_name}
            onChange={(full_name) => change({ full_name })}
          />
          <TextField
            label="Sign-in name"
            name="username"
            value={value.username}
            onChange={(username) => change({ username })}
            input={{ autoCapitalize: "none" }}
          />
          <TextField
            label="First password"
            name="password"
            value={password}
            onChange={setPassword}
            hint="Ten characters or more."
            input={{ type: "password", autoComplete: "new-password" }}
          />
          <PickField
            label="May"
            name="role"
            value={value.role}
            options={roles}
            onChange={(role) => change({ role: role as RoleName })}
          />
          <TextField
            label="Licence number"
            name="licence"
            value={value.licence}
            onChange={(licence) => change({ licence })}
            hint="Where one is needed; records carry it."
          />
          {account.sites.length > 1 && (
            <SitesField value={value.site_ids} onChange={(site_ids) => change({ site_ids })} />
          )}
        </Fields>
        <Fault
          error={add.error}
          besides={["full_name", "username", "password", "role", "licence", "site_ids"]}
        />
        <Bar>
          <Button look="main" type="submit" isDisabled={add.isPending}>
            Add the member
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}
