import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { useCloseAct, type Outing } from "../../api/outings";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { Bar, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";

const One = styled.div`
  padding-bottom: 8px;
  > a {
    display: inline-block;
    padding: 4px 0 4px 36px;
    font-size: ${t.s13};
  }
`;

type ClosingAct = Outing["closing"][number];

/** An act at the end; where something is to be said with it, that is asked for first. */
function OneClosing({ outing, act, may }: { outing: Outing; act: ClosingAct; may: boolean }) {
  const { slug } = useAccount();
  const close = useCloseAct(outing.id);
  const [asked, setAsked] = useState(false);
  const [note, setNote] = useState(act.note);
  const send = (done: boolean) =>
    close.mutate({ key: act.key, done, note: done ? note : "" }, { onSuccess: () => setAsked(false) });
  return (
    <One>
      <Switch
        large
        value={act.done}
        disabled={!may}
        onChange={(done) => (done && act.asks ? setAsked(true) : send(done))}
      >
        {act.text}
        {act.by && <small>{` (${[act.note, act.by].filter(Boolean).join(", ")})`}</small>}
      </Switch>
      {act.machine_id !== null && !act.done && may && (
        <Link to={`/a/${slug}/kit/${act.machine_id}/clean`}>Step by step</Link>
      )}
      {asked && (
        <Form label={act.text} error={close.error} onSubmit={() => send(true)}>
          <TextField
            label={act.asks}
            name="note"
            value={note}
            hint="Nothing; or 1 gal, onto the rough at half rate."
            onChange={setNote}
          />
          <Bar>
            <Button type="submit">Note it</Button>
            <Button look="quiet" onPress={() => setAsked(false)}>
              Not yet
            </Button>
          </Bar>
        </Form>
      )}
      {!asked && <Fault error={close.error} />}
    </One>
  );
}

export function Closing({ outing, may }: { outing: Outing; may: boolean }) {
  if (!outing.closing.length) return null;
  return (
    <Section title="At the end">
      {outing.closing.map((c) => (
        <OneClosing key={c.key} outing={outing} act={c} may={may} />
      ))}
    </Section>
  );
}
