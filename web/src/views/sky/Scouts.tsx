import type { Schemas } from "../../api/client";
import { useStrip } from "../../api/sky";
import { useMay } from "../../app/session";
import { Section } from "../../parts/Section";
import { Reports } from "../ground/seen/Reports";
import { ScoutForm } from "../ground/seen/ScoutForm";

/** What scouts found of the diseases an area is watched for, and a form for what was found today. */
export function Scouts({ area, watches }: { area: number; watches: Schemas["WatchOut"][] }) {
  const strip = useStrip(area, 17);
  const may = useMay("applicator");
  const scouts = [...(strip.data?.scouts ?? [])].reverse();
  return (
    <Section title="What scouts found">
      {may && (
        <ScoutForm
          area_id={area}
          what={watches.find((w) => w.on)?.disease ?? ""}
          only={watches.map((w) => w.disease)}
        />
      )}
      {scouts.length > 0 && <Reports reports={scouts} />}
    </Section>
  );
}
