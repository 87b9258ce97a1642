import { startTransition, useEffect, useState } from 'react';

/** At the latest after so long it is worked out although the browser is busy. */
const MAX_WAIT_MS = 1500;

/** Where the browser is busy all the time it is worked out for so long, then others have their turn. */
const MAX_TURN_MS = 8;

/**
 * What is worked out while the browser has nothing else to do, step by step; until it is there what was worked out last, `otherwise` at
 * first.
 * @param make the same function for as long as nothing differs that it reads; null where nothing is to be worked out yet
 * @param quietMs so long nothing may have changed that it reads
 */
export function useWhenIdle<Value>(make: (() => Generator<void, Value>) | null, otherwise: Value, quietMs = 0): Value {
  const [value, setValue] = useState(otherwise);
  useEffect(() => {
    if (make === null) return;
    const steps = make();
    let handle = 0;
    let timer = 0;
    const run = (deadline: IdleDeadline | null) => {
      const began = performance.now();
      const hasTime = () =>
        deadline === null || deadline.didTimeout
          ? performance.now() - began < MAX_TURN_MS
          : deadline.timeRemaining() > 1;
      do {
        const step = steps.next();
        if (step.done) return startTransition(() => setValue(step.value));
      } while (hasTime());
      wait();
    };
    const wait = () => {
      // A browser that does not say when it is idle has other things to do between two turns.
      if (typeof window.requestIdleCallback !== 'function') timer = window.setTimeout(() => run(null));
      else handle = window.requestIdleCallback(run, { timeout: MAX_WAIT_MS });
    };
    timer = window.setTimeout(wait, quietMs);
    return () => {
      window.clearTimeout(timer);
      if (handle !== 0) window.cancelIdleCallback(handle);
    };
  }, [make, quietMs]);
  return value;
}
