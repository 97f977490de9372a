import { useEffect, useState } from "react";

/** `value` once it has stood still for `ms`: so that a request follows the typing, not every key of it. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
