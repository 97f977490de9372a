import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { EVERYTHING, useOutings, useProposed, useRoutes, useTakeOuting, type Ask } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Section, Stack } from "../../parts/Section";
import { SiteNotes } from "./SiteNotes";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { ActList } from "./ActList";
import { LeftList } from "./LeftList";

const DUE = "due";
const ALL = "all";
const Jobs = styled.ol`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) max-content;
    gap: 0 8px;
    align-items: center;
    min-height: 41px;
    border-bottom: 1px solid ${t.hair};
  }
  span:last-child {
    white-space: nowrap;
  }
`;

type Due = Schemas["OutingDueOut"];

/** What is due: whether it goes with the outing, and with what. */
function OneDue({ due, on, swap }: { due: Due; on: [boolean, (on: boolean) => void]; swap: Swap }) {
  const [goes, change] = on;
  const chosen = swap.of(due.key);
  const options = [
    { key: `${due.product_id}`, text: due.product },
    ...due.others.filter((o) => o.key !== `${due.product_id}`),
  ];
  return (
    <div>
      <Switch large value={goes} onChange={change}>
        {due.text}
      </Switch>
      {goes && due.others.length > 0 && (
        <PickField
          label={`${due.text}: with`}
          name={`swap-${due.key}`}
          hideLabel
          value={`${chosen ?? due.product_id}`}
          options={options}
          onChange={(key) => swap.set(due.key, Number(key))}
        />
      )}
    </div>
  );
}

interface Swap {
  of: (key: string) => number | undefined;
  set: (key: string, product_id: number) => void;
}

/** The jobs in order, each with a way to put it before the one above. */
function ByHand({
  jobs,
  order,
  put,
}: {
  jobs: Schemas["PlannedJobOut"][];
  order: string[];
  put: (order: string[]) => void;
}) {
  if (jobs.length < 2) return null;
  const keys = jobs.map((j) => j.key);
  const swapped = (n: number) => [...keys.slice(0, n - 1), keys[n]!, keys[n - 1]!, ...keys.slice(n + 1)];
  return (
    <Section title="Which first">
      <Jobs>
        {jobs.map((j, n) => (
          <li key={j.key}>
            <span>{j.title}</span>
            <span>
              {n > 0 && (
                <Button look="quiet" aria-label={`Earlier: ${j.title}`} onPress={() => put(swapped(n))}>
                  Earlier
                </Button>
              )}
            </span>
          </li>
        ))}
      </Jobs>
      {order.length > 0 && (
        <Button look="quiet" onPress={() => put([])}>
          In the order with the earliest end
        </Button>
      )}
    </Section>
  );
}

/** What is due on a day as one outing: its day, what goes with it, and its order with times. */
export function NewOuting() {
  const account = useAccount();
  const may = useMay("applicator");
  const go = useNavigate();
  const [search] = useSearchParams();
  const [ask, setAsk] = useState<Ask>({
    ...EVERYTHING,
    site_ids: search.has("site") ? [Number(search.get("site"))] : [],
    like: search.has("like") ? Number(search.get("like")) : null,
  });
  const [crew, setCrew] = useState("");
  const found = useProposed(ask);
  const take = useTakeOuting();
  const routes = useRoutes().data?.routes ?? [];
  const before = (useOutings().data ?? []).filter((o) => o.status === "done" || o.id === ask.like);
  const set = (more: Partial<Ask>) => setAsk({ ...ask, ...more });
  const { leave, swaps, order, site_ids } = ask;
  const swap: Swap = {
    of: (key) => swaps.find((s) => s.key === key)?.product_id,
    set: (key, product_id) => set({ swaps: [...swaps.filter((s) => s.key !== key), { key, product_id }] }),
  };
  const start = (begin: boolean) =>
    take.mutate(
      { ...ask, on: ask.on ?? found.data?.on, go: begin, crew },
      { onSuccess: (made) => void go(`/a/${account.slug}/round/outing/${made.id}`) },
    );
  const where = routes.find((r) => r.site_ids.join() === site_ids.join());
  const places = [
    { key: ALL, text: "Wherever something is due" },
    ...routes.map((r) => ({ key: `route ${r.id}`, text: `Route ${r.name}`, note: r.text })),
    ...account.sites.map((s) => ({ key: `${s.id}`, text: s.name })),
  ];
  const pickPlace = (key: string) => {
    const route = routes.find((r) => `route ${r.id}` === key);
    set({ site_ids: key === ALL ? [] : route ? route.site_ids : [Number(key)], order: [] });
  };
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
                  <TextField label="Who goes" name="crew" value={crew} onChange={setCrew} />
                  {account.sites.length > 1 && (
                    <PickField
                      label="Where"
                      name="site_ids"
                      value={
                        site_ids.length === 0
                          ? ALL
                          : where
                            ? `route ${where.id}`
                            : site_ids.length === 1
                              ? `${site_ids[0]}`
                              : null
                      }
                      options={places}
                      onChange={pickPlace}
                    />
                  )}
                </Stack>
              </Section>
              <Section title="What goes with it">
                {before.length > 0 && (
                  <PickField
                    label="Made of"
                    name="like"
                    value={ask.like ? `${ask.like}` : DUE}
                    options={[
                      { key: DUE, text: "What is due" },
                      ...before.map((o) => ({
                        key: `${o.id}`,
                        text: `The same as on ${o.day}`,
                        note: o.text,
                      })),
                    ]}
                    onChange={(key) =>
                      set({ like: key === DUE ? null : Number(key), leave: [], swaps: [], order: [] })
                    }
                  />
                )}
                {[...data.dues, ...data.out].map((d) => (
                  <OneDue
                    key={d.key}
                    due={d}
                    swap={swap}
                    on={[
                      !leave.includes(d.key),
                      (on) => set({ leave: on ? leave.filter((k) => k !== d.key) : [...leave, d.key] }),
                    ]}
                  />
                ))}
              </Section>
              <ByHand jobs={data.jobs} order={order} put={(keys) => set({ order: keys })} />
              <SiteNotes sites={data.sites} />
            </Form>
          }
        >
          <Fault error={take.error ?? found.error} besides={["on", "clock", "people", "crew", "like"]} />
          {data.notes.map((n) => (
            <Notice key={n} tone="note">
              {n}
            </Notice>
          ))}
          {data.acts.length > 0 ? (
            <Section title={data.proven ? "In order" : "In order, the best found"}>
              <ActList acts={data.acts} people={data.people} />
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
