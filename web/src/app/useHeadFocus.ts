import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

let last: string | null = null;

/**
 * The heading that takes the focus when one comes to a page by a link, a key or a save, so that it is read out and the next
 * Tab goes on from there. A page that is opened by its address, and one that has put the focus into a field, keep it.
 */
export function useHeadFocus() {
  const { pathname } = useLocation();
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    const came = last !== null && last !== pathname;
    last = pathname;
    const inside = document.activeElement?.closest("main, [role=dialog]");
    if (came && !inside) head.current?.focus({ preventScroll: true });
  }, [pathname]);
  return head;
}
