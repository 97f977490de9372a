import { useLocation, useSearchParams } from "react-router";
import { useAccount } from "./session";

/** Where one came from to put something right: the address that is gone back to, of this account alone. */
export function useBack(): string | null {
  const account = useAccount();
  const [search] = useSearchParams();
  const back = search.get("back");
  return back?.startsWith(`/a/${account.slug}/`) ? back : null;
}

/** The address of a place in the account that comes back here. */
export function useThereAndBack(): (to: string) => string {
  const account = useAccount();
  const { pathname, search } = useLocation();
  return (to) =>
    `/a/${account.slug}/${to}${to.includes("?") ? "&" : "?"}back=${encodeURIComponent(pathname + search)}`;
}
