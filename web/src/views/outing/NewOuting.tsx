import { useState } from "react";
import { useNavigate } from "react-router";
import { EVERYTHING, useProposed, useTakeOuting, type Ask } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section, Stack } from "../../parts/Section";
import { SiteNotes } from "./SiteNotes";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { ActList } from "./ActList";
import { LeftList } from "./LeftList";

/** What is due on a day as one outing: its day, what goes with it, and its order with times. */
export function NewOuting() {
  const account = useAccount();
  const may = useMay("applicator");
  const go = useNavigate();
  const [ask, setAsk] = useState(EVERYTHING);
  const found = useProposed(ask);
  const take = useTakeOuting();
  const set = (more: Partial<Ask>) => setAsk({ ...ask, ...more });
  const { leave } = ask;
  const start = (begin: boolean) =>
    take.mutate(
      { ...ask, on: ask.on ?? found.data?.on, go: begin },
      { onSuccess: (made) => void go(`/a/${account.slug}/round/outing/${made.id}`) },
    );
  return (
    <Waiting of={found}>
      {(data) => (
        <Page
          sentence={data.sentence}
          act={
            may &&
            data.acts.length > 0 && (
              <>
                <Button onPress={() => start(false)} isDisabled={take.isPending}>
                  Plan it
                </Button>
                <Button look="main" onPress={() => start(true)} isDisabled={take.isPending}>
                  Start this outing
                </Button>
              </>
            )
          }
          margin={
            <Form label="The outing" error={take.error ?? found.error} onSubmit={() => start(false)}>
              <Section title="When">
                <Stack>
                  <DateField label="Day" name="on" value={ask.on ?? data.on} onChange={(on) => set({ on })} />
                  <TextField
                    label="Not before"
                    name="clock"
                    value={ask.clock}
                    hint="A time of day, like 07:30."
                    onChange={(clock) => set({ clock })}
                  />
                  <TextField
                    label="People"
                    name="people"
                    value={String(ask.people)}
                    input={{ inputMode: "numeric", type: "number", min: 1, max: 6 }}
                    onChange={(n) => set({ people: Math.min(6, Math.max(1, Number(n) || 1)) })}
                  />
                </Stack>
              </Section>
              <Section title="What goes with it">
                {[...data.dues, ...data.out].map((d) => (
                  <Switch
                    key={d.key}
                    large
                    value={!leave.includes(d.key)}
                    onChange={(on) =>
                      set({ leave: on ? leave.filter((k) => k !== d.key) : [...leave, d.key] })
                    }
                  >
                    {d.text}
                  </Switch>
                ))}
              </Section>
              <SiteNotes sites={data.sites} />
            </Form>
          }
        >
          <Fault error={take.error ?? found.error} besides={["on", "clock", "people"]} />
          {data.notes.map((n) => (
            <Notice key={n} tone="note">
              {n}
            </Notice>
          ))}
          {data.acts.length > 0 ? (
            <Section title={data.proven ? "In order" : "In order, the best found"}>
              <ActList acts={data.acts} />
            </Section>
          ) : (
            <Empty>What is due is listed in Season. An outing is made of what may go down on its day.</Empty>
          )}
          {data.left.length > 0 && (
            <Section title="Not with this outing">
              <LeftList left={data.left} />
            </Section>
          )}
        </Page>
      )}
    </Waiting>
  );
}
