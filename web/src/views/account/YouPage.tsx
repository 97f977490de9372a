import { useState } from "react";
import { useChangeMe, useChangePassword, useEndSession, useOpenSessions } from "../../api/people";
import { useCalendarAddress, useChooseReminders, useReminders } from "../../api/outings";
import { useAccount, useSession } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";
import { stamp } from "../../parts/days";

/** What is known of oneself, the password, and where one is signed in. */
export function YouPage() {
  const account = useAccount();
  const { data: session } = useSession();
  return (
    <Page sentence={`You are ${session?.user}, and sign in as ${session?.username}.`}>
      <SubRule label="Parts of the account" parts={accountParts(account)} />
      <Known />
      <Reminders />
      <Password />
      <Open />
    </Page>
  );
}

/** What one's calendar holds, and its private address. */
function Reminders() {
  const found = useReminders();
  const choose = useChooseReminders();
  const address = useCalendarAddress();
  const copy = (text: string) =>
    void navigator.clipboard.writeText(text).then(
      () => say("The address is copied."),
      () => say("The address cannot be copied here: mark it and copy it."),
    );
  return (
    <Section title="Your calendar and letters">
      <Fault error={choose.error ?? address.error ?? found.error} />
      {found.data && (
        <>
          {found.data.choices.map((c) => (
            <Switch
              key={c.key}
              large
              value={found.data.holds.includes(c.key)}
              onChange={(on) =>
                choose.mutate({
                  mail: found.data.mail,
                  holds: on ? [...found.data.holds, c.key] : found.data.holds.filter((k) => k !== c.key),
                })
              }
            >
              {c.text}
            </Switch>
          ))}
          <Switch
            large
            value={found.data.mail}
            disabled={!found.data.mail && found.data.no_mail !== ""}
            onChange={(mail) => choose.mutate({ holds: found.data.holds, mail })}
          >
            A letter every morning: the next outing, what is due and locked, what runs out.
            {found.data.no_mail && ` ${found.data.no_mail}`}
          </Switch>
          {found.data.address ? (
            <>
              <p style={{ margin: "12px 0 4px" }}>
                Subscribe to this address in a calendar. Whoever has it can read it: keep it to yourself, and
                revoke it if it got out.
              </p>
              <code style={{ overflowWrap: "anywhere" }}>{found.data.address}</code>
              <Bar>
                <Button onPress={() => copy(found.data.address)}>Copy the address</Button>
                <Button onPress={() => address.mutate(true)} isDisabled={address.isPending}>
                  Make a new one
                </Button>
                <Button look="stop" onPress={() => address.mutate(false)} isDisabled={address.isPending}>
                  Revoke it
                </Button>
              </Bar>
            </>
          ) : (
            <Bar>
              <Button onPress={() => address.mutate(true)} isDisabled={address.isPending}>
                Make a private address
              </Button>
            </Bar>
          )}
        </>
      )}
    </Section>
  );
}

function Known() {
  const { data: session } = useSession();
  const [value, setValue] = useState({ full_name: session?.user ?? "", email: session?.email ?? "" });
  const change = useChangeMe();
  const submit = () => change.mutate(value, { onSuccess: () => say("It is kept.") });
  return (
    <Section title="Name and letters">
      <Form label="Name and letters" error={change.error} onSubmit={submit}>
        <Fields $columns={3}>
          <TextField
            label="Name"
            name="full_name"
            value={value.full_name}
            onChange={(full_name) => setValue((now) => ({ ...now, full_name }))}
            hint="As records carry it from now on."
            input={{ autoComplete: "name" }}
          />
          <TextField
            label="E-mail address"
            name="email"
            value={value.email}
            onChange={(email) => setValue((now) => ({ ...now, email }))}
            hint={
              session?.mail
                ? "A link goes there if you forget your password."
                : "Not used here yet: no letters go out from this server."
            }
            input={{ type: "email", autoComplete: "email" }}
          />
        </Fields>
        <Fault error={change.error} besides={["full_name", "email"]} />
        <Bar>
          <Button type="submit" isDisabled={change.isPending}>
            Keep it
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}

const none = { old: "", new: "" };

function Password() {
  const [value, setValue] = useState(none);
  const change = useChangePassword();
  const submit = () =>
    change.mutate(value, {
      onSuccess: () => {
        setValue(none);
        say("The new password counts. You are signed out everywhere else.");
      },
    });
  const field = (name: "old" | "new", label: string, hint?: string) => (
    <TextField
      label={label}
      name={name}
      value={value[name]}
      onChange={(text) => setValue((now) => ({ ...now, [name]: text }))}
      hint={hint}
      input={{ type: "password", autoComplete: name === "old" ? "current-password" : "new-password" }}
    />
  );
  return (
    <Section title="Password">
      <Form label="Password" error={change.error} onSubmit={submit}>
        <Fields $columns={3}>
          {field("old", "Password now")}
          {field("new", "New password", "Ten characters or more. You are signed out everywhere else.")}
        </Fields>
        <Fault error={change.error} besides={["old", "new"]} />
        <Bar>
          <Button type="submit" isDisabled={change.isPending || !value.old || !value.new}>
            Change the password
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}

function Open() {
  const account = useAccount();
  const open = useOpenSessions();
  const end = useEndSession();
  return (
    <Section title="Where you are signed in">
      <Fault error={end.error} />
      <Waiting of={open}>
        {(sessions) => (
          <>
            <Ledger>
              <thead>
                <tr>
                  <th>Last used</th>
                  <th>On</th>
                  <th className="wide">From</th>
                  <th className="wide">Since</th>
                  <th aria-label="End" />
                </tr>
              </thead>
              <tbody>
                {sessions.map((s) => (
                  <tr key={s.id}>
                    <td>{stamp(s.last_at, account.time_zone)}</td>
                    <td>
                      {s.device} {s.this && <span className="soft">this one</span>}
                    </td>
                    <td className="wide soft">{s.address}</td>
                    <td className="wide soft">{stamp(s.at, account.time_zone)}</td>
                    <td className="figure">
                      {!s.this && (
                        <Button look="quiet" onPress={() => end.mutate(s.id)} isDisabled={end.isPending}>
                          End it
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
            {sessions.length > 1 && (
              <Bar>
                <Button onPress={() => end.mutate(null)} isDisabled={end.isPending}>
                  Sign out everywhere else
                </Button>
              </Bar>
            )}
          </>
        )}
      </Waiting>
    </Section>
  );
}
