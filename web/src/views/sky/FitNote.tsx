import { useFit } from "../../api/sky";
import { FitMark } from "../../parts/FitMark";
import { Hint } from "../../parts/Field";
import { Section } from "../../parts/Section";
import { HoursLink } from "./HoursLink";

/** When what is in a tank may go down on an area, by the strictest of its labels: the verdict of the hours, beside a sum. Nothing where no weather comes in. */
export function FitNote({ area, products }: { area: number; products: number[] }) {
  const fit = useFit({ area_id: area, product_ids: products, hours: "1" });
  if (!fit.data || fit.data.fresh.state === "none") return null;
  return (
    <Section title="When">
      <p>
        <FitMark verdict={fit.data.verdict} bare /> {fit.data.sentence}
      </p>
      {fit.data.fresh.state === "stale" && <Hint>{fit.data.fresh.sentence}</Hint>}
      <p>
        <HoursLink area={area} products={products} />
      </p>
    </Section>
  );
}
