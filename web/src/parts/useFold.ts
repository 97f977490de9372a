import { useLayoutEffect, useRef, useState } from "react";

/**
 * Something that folds away once it is `done`, and can be shown again. When the focus was inside as it folds, it
 * goes to the button that unfolds it.
 */
export function useFold<T extends HTMLElement>(done: boolean) {
  const box = useRef<T>(null);
  const [unfolded, unfold] = useState(false);
  const shut = done && !unfolded;
  useLayoutEffect(() => {
    if (shut && box.current?.contains(document.activeElement)) {
      box.current.querySelector<HTMLElement>("[data-fold]")?.focus();
    }
  }, [shut]);
  return { box, shut, turn: () => unfold((now) => !now) };
}
