import type { RedirectReason } from '#core/derive/redirects.ts';
import { momentWords } from '#core/model/moment-words.ts';
import type { Destination } from '#core/model/redirect.ts';
import type { Site } from '#core/model/site.ts';
import type { LiveRedirect } from '#contract/releases.ts';
import { liveAddress } from '../../../tree/live-address.ts';
import { capital, titleIn } from '../publish-words.ts';

const REASON_WORDS: Readonly<Record<RedirectReason, string>> = {
  'by hand': 'by hand',
  pattern: 'by hand, with everything below',
  moved: 'its page moved',
  'taken down': 'its page was taken down',
  'old site': 'from the old site',
};

/** What a redirect is known by: the one that somebody made has an id, any other its address. */
export const idOfRedirect = ({ redirect, path }: LiveRedirect): string => redirect ?? path;

/** Why an address leads elsewhere, since when, and how often visitors met it. */
export function reasonSentence({ settings: { timeZone } }: Site, one: LiveRedirect): string {
  const why = [capital(REASON_WORDS[one.because]), one.since !== null && `since ${momentWords(one.since, timeZone)}`]
    .filter(Boolean)
    .join(', ');
  const met =
    one.hits === 0
      ? 'not met yet'
      : `used ${one.hits === 1 ? 'once' : `${one.hits} times`}, last on ${momentWords(one.lastHit!, timeZone)}`;
  return `${one.isResting ? 'Not used: a page has the address. ' : ''}${why} · ${met}`;
}

/** Where it leads: the address of a page, or the title where it has none; an outside address, or nowhere. */
export function destinationWords(site: Site, to: Destination): string {
  if (to === 'gone') return 'gone (410)';
  if ('url' in to) return to.url;
  return liveAddress(site, to.page) ?? `‘${titleIn(site, to.page)}’`;
}
