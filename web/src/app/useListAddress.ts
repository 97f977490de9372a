import { useSearchParams } from "react-router";

/** How a list is searched, narrowed and ordered, kept in the address: a reload, a link and the way back keep it. */
export function useListAddress<K extends string>(usual: Record<K, string>) {
  const [params, setParams] = useSearchParams();
  const names = Object.keys(usual) as K[];
  const value = Object.fromEntries(names.map((n) => [n, params.get(n) ?? usual[n]])) as Record<K, string>;
  const set = (part: Partial<Record<K, string>>) =>
    setParams(
      (was) => {
        for (const n of names) {
          const now = part[n];
          if (now === undefined) continue;
          if (now === usual[n]) was.delete(n);
          else was.set(n, now);
        }
        return was;
      },
      { replace: true },
    );
  return { value, set, narrowed: names.some((n) => value[n] !== usual[n]) };
}
