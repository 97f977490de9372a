import { useState } from "react";
import { useNavigate } from "react-router";
import { useBringArchive, useCloseAccount } from "../../api/people";
import { useAccount, useMay, useSession } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { FileDrop } from "../../parts/FileDrop";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { accountParts } from "./accountParts";

/** The account as a whole: taken along, brought in, closed. */
export function WholePage() {
  const account = useAccount();
  const may = useMay("manager") && account.whole;
  const { data: session } = useSession();
  return (
    <Page sentence="All of it in one file: yours to keep, and to bring in anywhere.">
      <SubRule label="Parts of the account" parts={accountParts(account)} />
      {may ? (
        <Section title="Take it along">
          <p>
            <a href={`/api/accounts/${account.slug}/archive.zip`} download>
              Take the archive of {account.name}
            </a>
          </p>
          <p className="soft" style={{ marginTop: 8, maxWidth: "60ch" }}>
            It holds everything: ground with its measurements and soil, cards with all their rules, packages,
            stock and label pictures, machines and calibrations, rounds, the book, and the weather. Who may
            come in, and their passwords, are not in it.
          </p>
        </Section>
      ) : (
        <Notice tone="note">Only a manager of all sites takes the account along, or closes it.</Notice>
      )}
      {session?.founding && <Bring />}
      {may && <Close />}
    </Page>
  );
}

function Bring() {
  const navigate = useNavigate();
  const { data: session } = useSession();
  const bring = useBringArchive();
  const [file, setFile] = useState<File | null>(null);
  const submit = () =>
    file &&
    bring.mutate(file, {
      onSuccess: (now) => {
        const before = new Set(session?.accounts.map((a) => a.slug));
        const made = now.accounts.find((a) => !before.has(a.slug));
        say(`${made?.name ?? "The account"} is in, as an account of its own.`);
        if (made) void navigate(`/a/${made.slug}/today`);
      },
    });
  return (
    <Section title="Bring an archive in">
      <p className="soft" style={{ marginBottom: 12, maxWidth: "60ch" }}>
        It becomes an account of its own, with you as its manager. Nothing of this one changes.
      </p>
      <FileDrop
        label="Archive to bring in"
        accept=".zip,application/zip"
        about={file ? `${file.name} is picked.` : "Pick an archive, or drop it here."}
        onTake={setFile}
      />
      <Fault error={bring.error} />
      <Bar>
        <Button onPress={submit} isDisabled={!file || bring.isPending}>
          {bring.isPending ? "Reading it …" : "Bring it in"}
        </Button>
      </Bar>
    </Section>
  );
}

const none = { name: "", password: "" };

function Close() {
  const account = useAccount();
  const [value, setValue] = useState(none);
  const close = useCloseAccount();
  const submit = () =>
    close.mutate(value, {
      // the session says what is left; a full load lets go of everything that was read
      onSuccess: () => window.location.assign("/"),
    });
  return (
    <Section title="Close the account">
      <Notice tone="caution" word="For good">
        Everything of {account.name} is deleted, and whoever belongs to no other account cannot sign in any
        more. It cannot be undone: take the archive first.
      </Notice>
      <Form label="Close the account" error={close.error} onSubmit={submit}>
        <Fields $columns={3}>
          <TextField
            label="Name of the account"
            name="name"
            value={value.name}
            onChange={(name) => setValue((now) => ({ ...now, name }))}
            hint={`Type “${account.name}”.`}
            input={{ autoComplete: "off" }}
          />
          <TextField
            label="Your password"
            name="password"
            value={value.password}
            onChange={(password) => setValue((now) => ({ ...now, password }))}
            input={{ type: "password", autoComplete: "current-password" }}
          />
        </Fields>
        <Fault error={close.error} besides={["name", "password"]} />
        <Bar>
          <Button type="submit" isDisabled={close.isPending || !value.name || !value.password}>
            Close it for good
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}
