import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAfter, useAnswerFollowUp, useStrikeFollowUp } from "../../api/scouting";
import { useMay } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Facts } from "../../parts/Facts";
import { Form } from "../../parts/Form";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, OnScreen, Section } from "../../parts/Section";
import { StrikeForm } from "../../parts/StrikeForm";
import { SpotsSince } from "../../parts/SpotsSince";
import { TextField } from "../../parts/TextField";

const Words = styled.div`
  color: ${t.soft};
  font-size: ${t.s13};
`;

/** What to expect after an application, when to look again, and how it was then. */
export function After({ application, area_id }: { application: number; area_id: number | null }) {
  const after = useAfter(application);
  const may = useMay("applicator");
  const [open, setOpen] = useState(false);
  if (!after.data) return null;
  const { signs, looks, found, without, what_else } = after.data;
  if (!signs.length && !found.length) return null;
  return (
    <Section title="Afterwards">
      <Facts of={signs.map((s) => [s.name, s.text])} />
      {looks && <Hint style={{ marginTop: 8 }}>{looks}</Hint>}
      {area_id !== null && <SpotsSince spots={after.data.spots} area_id={area_id} />}
      {without && (
        <Notice tone="caution" word="No effect">
          {without}
          <ul>
            {what_else.map((said) => (
              <li key={said}>{said}</li>
            ))}
          </ul>
        </Notice>
      )}
      {found.length > 0 && (
        <Ledger style={{ marginTop: 12 }}>
          <tbody>
            {found.map((f) => (
              <Found key={f.id} found={f} />
            ))}
          </tbody>
        </Ledger>
      )}
      {may && (
        <OnScreen>
          {open ? (
            <Answer application={application} answers={after.data.answers} onDone={() => setOpen(false)} />
          ) : (
            <Bar style={{ marginTop: 12 }}>
              <Button onPress={() => setOpen(true)}>Say how it is now</Button>
            </Bar>
          )}
        </OnScreen>
      )}
    </Section>
  );
}

function Found({ found }: { found: Schemas["FollowUpOut"] }) {
  const may = useMay("applicator");
  const strike = useStrikeFollowUp();
  const [striking, setStriking] = useState(false);
  return (
    <tr>
      <td className="day">{found.day}</td>
      <td>
        <span style={{ textDecoration: found.struck ? "line-through" : "none" }}>{found.text}</span>
        {found.note && <Words>{found.note}</Words>}
        {found.struck && <Words>{found.struck}</Words>}
        {striking && (
          <div style={{ margin: "10px 0" }}>
            <StrikeForm
              label={`Strike ${found.text}`}
              of={strike}
              onStrike={(why, then) => strike.mutate({ id: found.id, why }, then)}
              onDone={() => setStriking(false)}
            />
          </div>
        )}
      </td>
      <td className="soft wide">{found.by}</td>
      <td className="figure">
        {may && !found.struck && !striking && (
          <Button
            look="quiet"
            aria-label={`Strike: ${found.text}, ${found.day}`}
            onPress={() => setStriking(true)}
          >
            Strike
          </Button>
        )}
      </td>
    </tr>
  );
}

function Answer({
  application,
  answers,
  onDone,
}: {
  application: number;
  answers: Schemas["OptionOut"][];
  onDone: () => void;
}) {
  const answer = useAnswerFollowUp();
  const [v, setV] = useState({ how: "", on: todayHere(), note: "" });
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  return (
    <Form
      label="How it is now"
      error={answer.error}
      onSubmit={() => answer.mutate({ application_id: application, ...v }, { onSuccess: onDone })}
    >
      <Fields $columns={3} style={{ marginTop: 14 }}>
        <PickField
          label="How it is"
          name="how"
          value={v.how || null}
          options={answers}
          onChange={(how) => change({ how })}
          placeholder="Pick one"
        />
        <DateField label="On" name="on" value={v.on} onChange={(on) => change({ on })} />
        <TextField label="Note" name="note" value={v.note} onChange={(note) => change({ note })} />
      </Fields>
      <Bar style={{ marginTop: 12 }}>
        <Button type="submit" look="main" isDisabled={!v.how || answer.isPending}>
          Note it
        </Button>
        <Button look="quiet" onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <Fault error={answer.error} besides={["how", "on", "note"]} />
    </Form>
  );
}
