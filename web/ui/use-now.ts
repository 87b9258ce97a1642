import { useEffect, useState } from 'react';

const EVERY_MS = 20_000;

/** The time, in milliseconds since 1970, as it was at most 20 seconds ago. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), EVERY_MS);
    return () => window.clearInterval(timer);
  }, []);
  return now;
}
