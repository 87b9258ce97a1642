import type { SiteKey } from '#core/model/ids.ts';
import { type ReleaseProgress, releaseProgress } from '#contract/releases.ts';
import type { Database } from '../database/connect.ts';
import { PROGRESS_CHANNEL, tell } from '../database/channels.ts';
import type { SiteNews } from './site-news.ts';

/**
 * Tells all processes how far a release is, whichever of them the person's browser listens to. On a connection of its own:
 * the release's transaction would keep it back until the end. What cannot be told is left out.
 */
export const progressTeller =
  (database: Database, site: SiteKey, request: string | null) =>
  (done: number, total: number): void => {
    const told = JSON.stringify({ site, request, done, total });
    void tell(database, PROGRESS_CHANNEL, [told]).catch(() => undefined);
  };

/** Passes on what another process, or this one, told. */
export function passOnProgress(told: string, news: SiteNews<ReleaseProgress>): void {
  const { site, ...progress } = JSON.parse(told) as ReleaseProgress & { site: SiteKey };
  news.tell(site, releaseProgress.parse(progress));
}
