import { Link } from "react-router";
import { useClub } from "../../app/session";

/** The way to every hour of a product on an area. */
export function HoursLink({ area, product }: { area: number; product: number }) {
  const club = useClub();
  const pick = () =>
    localStorage.setItem(`draft:${club.slug}/sky/hours`, JSON.stringify({ products: [`${product}`] }));
  return (
    <Link to={`/c/${club.slug}/sky/hours?area=${area}`} onClick={pick}>
      Every hour
    </Link>
  );
}
