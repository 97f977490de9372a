import { useDebouncedValue } from "@tanstack/react-pacer/debouncer";

/** `value` once it has stood still for `ms`: so that a request follows the typing, not every key of it. */
export function useSettled<T>(value: T, ms: number): T {
  return useDebouncedValue(value, { wait: ms })[0];
}
