import { useEffect, useState } from 'react';

/** The value once it has not changed for so long. */
export function useSettled<Value>(value: Value, after: number): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), after);
    return () => window.clearTimeout(timer);
  }, [value, after]);
  return settled;
}
