import { startTransition, useEffect, useState } from 'react';

/** At the latest after so long it is worked out although the browser is busy. */
const MAX_WAIT_MS = 1500;

/**
 * What is worked out while the browser has nothing else to do; until then what was worked out last, `otherwise` at first.
 * @param make the same function for as long as nothing differs that it reads; null where nothing is to be worked out yet
 * @param quietMs so long nothing may have changed that it reads
 */
export function useWhenIdle<Value>(make: (() => Value) | null, otherwise: Value, quietMs = 0): Value {
  const [value, setValue] = useState(otherwise);
  useEffect(() => {
    if (make === null) return;
    const run = () => {
      const made = make();
      startTransition(() => setValue(made));
    };
    let handle = 0;
    const timer = window.setTimeout(() => {
      // A browser that does not say when it is idle works it out at once.
      if (typeof window.requestIdleCallback !== 'function') return run();
      handle = window.requestIdleCallback(run, { timeout: MAX_WAIT_MS });
    }, quietMs);
    return () => {
      window.clearTimeout(timer);
      if (handle !== 0) window.cancelIdleCallback(handle);
    };
  }, [make, quietMs]);
  return value;
}
