import { Link } from "react-router";
import { useFit } from "../../api/sky";
import { useClub } from "../../app/session";
import { FitMark } from "../../parts/FitMark";
import { Hint } from "../../parts/Field";
import { Section } from "../../parts/Section";

/** When a product may go down on an area: the verdict of the hours, beside a sum. Nothing where no weather comes in. */
export function FitNote({ area, product }: { area: number; product: number }) {
  const club = useClub();
  const fit = useFit({ area_id: area, product_ids: [product], hours: "1" });
  if (!fit.data || fit.data.fresh.state === "none") return null;
  return (
    <Section title="When">
      <p>
        <FitMark verdict={fit.data.verdict} bare /> {fit.data.sentence}
      </p>
      {fit.data.fresh.state === "stale" && <Hint>{fit.data.fresh.sentence}</Hint>}
      <p>
        <Link
          to={`/c/${club.slug}/sky/hours?area=${area}`}
          onClick={() =>
            localStorage.setItem(`draft:${club.slug}/sky/hours`, JSON.stringify({ products: [`${product}`] }))
          }
        >
          Every hour
        </Link>
      </p>
    </Section>
  );
}
