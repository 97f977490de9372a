import { Link } from "react-router";
import { useAccount } from "../../app/session";

/** The way to every hour of some products on an area. */
export function HoursLink({ area, products }: { area: number; products: number[] }) {
  const account = useAccount();
  const pick = () =>
    localStorage.setItem(
      `draft:${account.slug}/sky/hours`,
      JSON.stringify({ products: products.map(String) }),
    );
  return (
    <Link to={`/a/${account.slug}/sky/hours?area=${area}`} onClick={pick}>
      Every hour
    </Link>
  );
}
