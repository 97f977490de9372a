import { useState } from "react";
import { Link } from "react-router";
import { api, read, type Schemas } from "../../api/client";
import { useChange, useSites } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";
import { SiteForm } from "./SiteForm";
import { shortDay } from "../../parts/days";

type Site = Schemas["SiteOut"];

/** Where the ground lies: one site, or several. */
export function SitesPage() {
  const account = useAccount();
  const sites = useSites();
  const may = useMay("manager") && account.whole;
  const [open, setOpen] = useState<number | "new" | null>(null);
  return (
    <Waiting of={sites}>
      {(list) => (
        <Page sentence={sentence(list)}>
          <SubRule label="Parts of the account" parts={accountParts(account)} />
          {list.map((site) => (
            <OneSite
              key={`${site.id} ${site.version}`}
              site={site}
              only={list.length === 1}
              may={may}
              open={open === site.id}
              onOpen={(on) => setOpen(on ? site.id : null)}
            />
          ))}
          {open === "new" && <SiteForm onDone={() => setOpen(null)} />}
          {may && open === null && (
            <Bar>
              <Button onPress={() => setOpen("new")}>Add another site</Button>
            </Bar>
          )}
        </Page>
      )}
    </Waiting>
  );
}

function sentence(list: Site[]) {
  if (list.length > 1) return `${list.length} sites, each with its own clock and weather.`;
  return `All the ground is in one place, on ${place(list[0]!)} time.`;
}

const place = (site: Site) => site.time_zone.split("/").at(-1)!.replaceAll("_", " ");

const month = (day: Schemas["DayOut"]) =>
  shortDay(`2001-${String(day.month).padStart(2, "0")}-${String(day.day).padStart(2, "0")}`);

const closedText = (c: Schemas["ClosedIn"]) =>
  `${c.what === "N" ? "N" : "P₂O₅"} from ${month(c.start)} to ${month(c.end)}${c.why ? `, by ${c.why}` : ""}`;

interface Props {
  site: Site;
  only: boolean;
  may: boolean;
  open: boolean;
  onOpen: (on: boolean) => void;
}

function OneSite({ site, only, may, open, onOpen }: Props) {
  const account = useAccount();
  const remove = useChange((path, site_id: number) =>
    read(api.DELETE("/api/accounts/{account}/sites/{site_id}", { params: { path: { ...path, site_id } } })),
  );
  if (open) return <SiteForm site={site} onDone={() => onOpen(false)} />;
  return (
    <Section
      title={only ? site.name : <Link to={`/a/${account.slug}/ground/site/${site.id}`}>{site.name}</Link>}
    >
      <Facts
        of={[
          ["Address", site.address],
          ["Contact", site.contact],
          ["Getting in", site.gate],
          ["Water for tanks", site.water],
          ["A filling", site.fill_minutes === null ? "" : `${site.fill_minutes} min`],
          ["Must be told", site.tell],
          ["Agreed", site.agreed],
          ["Clock", site.time_zone.replaceAll("_", " ")],
          ["Areas", site.areas],
          ["Closed", site.closed.map(closedText).join("; ")],
        ]}
      />
      <Fault error={remove.error} />
      {may && (
        <Bar>
          <Button aria-label={`Change it: ${site.name}`} onPress={() => onOpen(true)}>
            Change it
          </Button>
          {!only && site.areas === 0 && (
            <Button
              look="stop"
              aria-label={`Remove it: ${site.name}`}
              onPress={() => remove.mutate(site.id, { onSuccess: () => say(`${site.name} is removed.`) })}
            >
              Remove it
            </Button>
          )}
        </Bar>
      )}
    </Section>
  );
}
