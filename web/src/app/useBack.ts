import { useLocation, useParams, useSearchParams } from "react-router";

/** Where one came from to put something right: the address that is gone back to, of this account alone. */
export function useBack(): string | null {
  const { account } = useParams();
  const [search] = useSearchParams();
  const back = search.get("back");
  return account && back?.startsWith(`/a/${account}/`) ? back : null;
}

/** The address of a place in the account that comes back here. */
export function useThereAndBack(): (to: string) => string {
  const { account } = useParams();
  const { pathname, search } = useLocation();
  return (to) =>
    `/a/${account}/${to}${to.includes("?") ? "&" : "?"}back=${encodeURIComponent(pathname + search)}`;
}
