import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useRemoveRoute, useRoutes, useSaveRoute, useSayWay } from "../../api/outings";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { WEEKDAYS } from "../../parts/days";
import { Form } from "../../parts/Form";
import { ManyField } from "../../parts/ManyField";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";

type Route = Schemas["RouteOut"];
type Leg = Schemas["RouteLegOut"];

const Way = styled.ol`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 132px;
    gap: 16px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid ${t.hair};
  }
  small {
    color: ${t.soft};
    font-size: ${t.s13};
  }
`;

const count = (n: number, what: string) => `${n} ${n === 1 ? what : `${what}s`}`;

/** Sites that are driven to together, on which days, and how long it takes between them. */
export function RoutesPage() {
  const account = useAccount();
  const found = useRoutes();
  const may = useMay("manager") && account.whole;
  const [open, setOpen] = useState<number | "new" | null>(null);
  return (
    <Waiting of={found}>
      {({ routes, loose }) => (
        <Page
          sentence={
            routes.length
              ? `${count(routes.length, "route")}; ${loose.length ? `${count(loose.length, "site")} on none` : "every site is on one"}.`
              : "No routes yet: every site may be driven to on any day."
          }
        >
          <SubRule label="Parts of the account" parts={accountParts(account)} />
          {routes.map((r) => (
            <OneRoute
              key={`${r.id} ${r.version}`}
              route={r}
              may={may}
              loose={loose}
              open={open === r.id}
              onOpen={(on) => setOpen(on ? r.id : null)}
            />
          ))}
          {open === "new" && <RouteForm loose={loose} onDone={() => setOpen(null)} />}
          {may && open === null && loose.length > 0 && (
            <Bar>
              <Button onPress={() => setOpen("new")}>Add a route</Button>
            </Bar>
          )}
        </Page>
      )}
    </Waiting>
  );
}

interface Props {
  route: Route;
  may: boolean;
  loose: Schemas["OptionOut"][];
  open: boolean;
  onOpen: (on: boolean) => void;
}

function OneRoute({ route, may, loose, open, onOpen }: Props) {
  const remove = useRemoveRoute();
  if (open) return <RouteForm route={route} loose={loose} onDone={() => onOpen(false)} />;
  return (
    <Section title={route.name}>
      <p>{route.text}</p>
      <Way>
        {route.legs.length ? (
          route.legs.map((leg) => <OneLeg key={`${leg.one_id} ${leg.other_id}`} leg={leg} may={may} />)
        ) : (
          <li>{route.sites[0]}</li>
        )}
      </Way>
      <Fault error={remove.error} />
      {may && (
        <Bar>
          <Button aria-label={`Change it: ${route.name}`} onPress={() => onOpen(true)}>
            Change it
          </Button>
          <Button
            look="stop"
            aria-label={`Remove it: ${route.name}`}
            onPress={() => remove.mutate(route.id, { onSuccess: () => say(`${route.name} is removed.`) })}
          >
            Remove it
          </Button>
        </Bar>
      )}
    </Section>
  );
}

/** The way to the next site; what somebody types of it is kept when they leave the box. */
function OneLeg({ leg, may }: { leg: Leg; may: boolean }) {
  const keep = useSayWay();
  const [typed, setTyped] = useState<string | null>(null);
  const { one_id, other_id } = leg;
  const leave = () => {
    if (typed === null || typed === `${leg.minutes}`) return setTyped(null);
    const minutes = typed.trim() === "" ? null : Number(typed);
    keep.mutate({ one_id, other_id, minutes }, { onSuccess: () => setTyped(null) });
  };
  return (
    <li>
      <span>
        {leg.text}
        <br />
        <small>{leg.said ? "as you said" : "by distance, or 20 min where no station tells it"}</small>
        <Fault error={keep.error} />
      </span>
      {may ? (
        <div onBlur={leave}>
          <TextField
            label="Minutes"
            name="minutes"
            value={typed ?? `${leg.minutes}`}
            input={{ inputMode: "numeric", "aria-label": `Minutes: ${leg.text}` }}
            onChange={setTyped}
          />
        </div>
      ) : (
        <span>{leg.minutes} min</span>
      )}
    </li>
  );
}

/** A route's form: a new one, or one that is changed. */
function RouteForm({
  route,
  loose,
  onDone,
}: {
  route?: Route;
  loose: Schemas["OptionOut"][];
  onDone: () => void;
}) {
  const account = useAccount();
  const { value, change, clear } = useDraft(`${account.slug}/route/${route?.id ?? "new"}`, {
    version: route?.version ?? null,
    name: route?.name ?? "",
    days: (route?.days ?? []).map(String),
    site_ids: (route?.site_ids ?? []).map(String),
  });
  const save = useSaveRoute(route?.id);
  const leave = () => {
    clear();
    onDone();
  };
  const mine = (route?.site_ids ?? []).map((id, n) => ({ key: `${id}`, text: route!.sites[n]! }));
  return (
    <Section title={route?.name ?? "A new route"}>
      <Form
        label="Route"
        error={save.error}
        onSubmit={() =>
          save.mutate(
            { ...value, days: value.days.map(Number), site_ids: value.site_ids.map(Number) },
            {
              onSuccess: (made) => {
                leave();
                say(route ? `${made.name} is changed.` : `${made.name} is a route.`);
              },
            },
          )
        }
      >
        <Fields $columns={3}>
          <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
          <ManyField
            label="Days"
            name="days"
            none="Any day"
            values={value.days}
            options={WEEKDAYS}
            onChange={(days) => change({ days })}
          />
          <ManyField
            label="Sites"
            name="site_ids"
            none="None picked"
            values={value.site_ids}
            options={[...mine, ...loose]}
            onChange={(site_ids) => change({ site_ids })}
          />
        </Fields>
        <Fault error={save.error} besides={["name", "days", "site_ids"]} />
        <Bar>
          <Button look="main" type="submit" isDisabled={save.isPending}>
            {route ? "Save the changes" : "Add the route"}
          </Button>
          <Button onPress={leave}>Leave it</Button>
        </Bar>
      </Form>
    </Section>
  );
}
