import type { Outing } from "../../api/outings";
import { Facts } from "../../parts/Facts";
import { Section } from "../../parts/Section";

/** What to know of each site before one goes there: whom to ask, and how to get in. */
export function SiteNotes({ sites }: { sites: Outing["sites"] }) {
  const told = sites.filter((s) => s.address || s.contact || s.gate || s.tell || s.agreed || s.water);
  return (
    <>
      {told.map((s) => (
        <Section key={s.id} title={s.name}>
          <Facts
            of={[
              ["Address", s.address],
              ["Ask for", s.contact],
              ["Getting in", s.gate],
              ["Water for tanks", s.water],
              ["Must be told", s.tell],
              ["Agreed", s.agreed],
            ]}
          />
        </Section>
      ))}
    </>
  );
}
