import { startTransition, useEffect, useState } from 'react';

/** At the latest after so long it is worked out although the browser is busy. */
const LONGEST_WAIT_MS = 1500;

/**
 * What is worked out while the browser has nothing else to do; until then what was worked out last, `otherwise` at first.
 * @param make the same function for as long as nothing differs that it reads; null where nothing is to be worked out yet
 */
export function useWhenIdle<Value>(make: (() => Value) | null, otherwise: Value): Value {
  const [value, setValue] = useState(otherwise);
  useEffect(() => {
    if (make === null) return;
    const run = () => {
      const made = make();
      startTransition(() => setValue(made));
    };
    if (typeof window.requestIdleCallback !== 'function') {
      const timer = window.setTimeout(run);
      return () => window.clearTimeout(timer);
    }
    const handle = window.requestIdleCallback(run, { timeout: LONGEST_WAIT_MS });
    return () => window.cancelIdleCallback(handle);
  }, [make]);
  return value;
}
