import type { ReactNode } from "react";
import styled from "styled-components";
import { useNavigate } from "react-router";
import { useAccount, useMay } from "../app/session";
import { say } from "../app/toast";
import { useBack } from "../app/useBack";
import { Button, ButtonLink } from "./Button";
import { Hint } from "./Field";
import { Form } from "./Form";
import { Fault, Notice } from "./Notice";
import { Bar } from "./Section";

interface Card {
  id: number;
  name: string;
}

/** What a change asked of the server looks like to a form. */
interface Change<In, Out> {
  mutate: (given: In, then?: { onSuccess?: (out: Out) => void }) => void;
  isPending: boolean;
  error: Error | null;
}

interface Props<In> {
  /** What the card is of: area, product, machine. */
  what: string;
  /** The place it belongs to, and goes back to. */
  place: string;
  /** The card that is being changed; none while a new one is filled in. */
  card?: Card;
  /** The verb on the button of a new card, and what is said once it is there. */
  add: string;
  added: string;
  body: () => In;
  save: Change<In, Card>;
  remove: Change<number, unknown>;
  putBack: Change<number, unknown>;
  draft: { clear: () => void; kept: boolean };
  /** The fields that show their own faults. */
  placed: string[];
  children: ReactNode;
}

const Held = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
`;

/** The form of a card that an account keeps: save it, leave it, or put it away with the way back. */
export function CardForm<In>(p: Props<In>) {
  const { what, place, card, save, remove, putBack, draft } = p;
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const list = useBack() ?? `/a/${account.slug}/${place}`;
  const done = (words: string, undo?: () => void) => {
    draft.clear();
    say(words, undo);
    void navigate(list);
  };
  const submit = () =>
    save.mutate(p.body(), {
      onSuccess: (saved) => done(`${saved.name} ${card ? "is changed" : p.added}.`),
    });
  const putAway = ({ id, name }: Card) =>
    remove.mutate(id, {
      onSuccess: () => done(`${name} is put away. The book keeps it.`, () => putBack.mutate(id)),
    });
  return (
    <Form label={what[0]!.toUpperCase() + what.slice(1)} error={save.error} onSubmit={submit}>
      {may && <Hint style={{ marginBottom: 12 }}>Fields with * must be filled in.</Hint>}
      {draft.kept && <Hint>Brought back from what you had typed before.</Hint>}
      {!may && <Notice tone="note">You can read this card. A manager changes it.</Notice>}
      <Held disabled={!may}>{p.children}</Held>
      <Fault error={save.error} besides={p.placed} />
      <Fault error={remove.error} />
      {may && (
        <Bar>
          <Button look="main" type="submit" isDisabled={save.isPending}>
            {card ? "Save the changes" : p.add}
          </Button>
          <ButtonLink to={list} onClick={() => draft.clear()}>
            Leave it
          </ButtonLink>
          {card && <Button look="stop" onPress={() => putAway(card)}>{`Put the ${what} away`}</Button>}
        </Bar>
      )}
    </Form>
  );
}
