import { Link } from "react-router";
import { useAccount } from "../../app/session";

/** The way to every hour of a product on an area. */
export function HoursLink({ area, product }: { area: number; product: number }) {
  const account = useAccount();
  const pick = () =>
    localStorage.setItem(`draft:${account.slug}/sky/hours`, JSON.stringify({ products: [`${product}`] }));
  return (
    <Link to={`/a/${account.slug}/sky/hours?area=${area}`} onClick={pick}>
      Every hour
    </Link>
  );
}
