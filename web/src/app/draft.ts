import { useCallback, useEffect, useState } from "react";

const PREFIX = "draft:";

function stored<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(PREFIX + key);
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
  }
}

/**
 * A form's state that survives a reload. `clear` forgets it, once it is saved or thrown away.
 * `kept` says whether it was brought back from before. While nothing is typed it follows what it is filled from: a card that
 * was shown before its change was read again shows it then.
 */
export function useDraft<T extends object>(key: string, initial: T) {
  const [kept, setKept] = useState(() => stored<T>(key) !== undefined);
  const [value, setValue] = useState<T>(() => ({ ...initial, ...stored<T>(key) }));
  const [touched, setTouched] = useState(false);
  const filled = JSON.stringify(initial);
  const [from, setFrom] = useState(filled);
  if (from !== filled) {
    setFrom(filled);
    if (!touched && !kept) setValue(initial);
  }

  useEffect(() => {
    if (touched) localStorage.setItem(PREFIX + key, JSON.stringify(value));
  }, [key, touched, value]);

  const change = useCallback((part: Partial<T> | ((now: T) => Partial<T>)) => {
    setTouched(true);
    setValue((now) => ({ ...now, ...(typeof part === "function" ? part(now) : part) }));
  }, []);

  const clear = useCallback(
    (next?: T) => {
      localStorage.removeItem(PREFIX + key);
      setTouched(false);
      setKept(false);
      if (next) setValue(next);
    },
    [key],
  );

  return { value, change, clear, kept, touched };
}
