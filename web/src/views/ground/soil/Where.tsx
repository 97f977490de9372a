import type { Schemas } from "../../../api/client";
import { useEyes } from "../../../api/scouting";
import { useAccount } from "../../../app/session";
import { AreaPlan } from "../../../parts/AreaPlan";
import { Hint } from "../../../parts/Field";
import { Section } from "../../../parts/Section";

/** Where an area's samples were taken, for those of fixed spots whose place is known, with the latest pH of each. */
export function Where({ area }: { area: Schemas["AreaWholeOut"] }) {
  const eyes = useEyes(area.area.id);
  const us = useAccount().units === "us";
  const places = (eyes.data?.spots ?? []).flatMap((s) => {
    const latest = area.soil.find((x) => x.spot_id === s.id);
    return latest && s.x !== null && s.y !== null
      ? [{ x: s.x, y: s.y, text: `${s.name}, pH ${latest.ph}` }]
      : [];
  });
  if (!places.length || !area.plan) return null;
  return (
    <Section title="Where they were taken">
      <AreaPlan
        plan={{ ...area.plan, marks: [] }}
        us={us}
        label="Plan with the spots of the samples"
        spots={places}
      />
      <Hint>{places.map((p, i) => `${i + 1} ${p.text}`).join("; ")}</Hint>
    </Section>
  );
}
