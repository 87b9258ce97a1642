import { useEffect, useState } from 'react';
import { z } from 'zod';
import type { SiteKey } from '#core/model/ids.ts';
import { usePreference } from '../api/preferences.ts';

/** Whoever was away for longer than this comes back; before, the visit goes on. */
const AWAY_MS = 30 * 60_000;
const NOTE_EVERY_MS = 5 * 60_000;
const SETTLES_MS = 3000;

const schema = z.object({ since: z.iso.datetime(), seen: z.iso.datetime() }).nullable();

const useKept = (site: SiteKey) => usePreference(`last-here.${site}`, schema, null);

/**
 * When the person was last here before this visit: what has changed since then is news to them. Null at the first visit, and until it is
 * known. A visit goes on over reloads, and ends with half an hour away.
 */
export const useLastHere = (site: SiteKey): string | null => useKept(site)[0]?.since ?? null;

/** Notes that the person is here, for as long as the site is open. */
export function useNoteVisit(site: SiteKey): void {
  const [kept, keep] = useKept(site);
  const [isNoted, setNoted] = useState(false);
  useEffect(() => {
    const note = () => {
      const seen = new Date().toISOString();
      const isBack = kept !== null && Date.parse(seen) - Date.parse(kept.seen) > AWAY_MS;
      keep({ since: kept === null || isBack ? (kept?.seen ?? seen) : kept.since, seen });
      setNoted(true);
    };
    // What is kept comes a moment after the page; noting before would take the last visit for this one.
    const timer = window.setTimeout(note, isNoted ? NOTE_EVERY_MS : SETTLES_MS);
    return () => window.clearTimeout(timer);
  }, [kept, keep, isNoted]);
}
