import { closingRows } from '#core/derive/access.ts';
import type { LiveView } from '../live/live-view.ts';
import { FEED, MAX_IN_ONE_FILE, feedAddress, hasFeed } from '../live/machine-files.ts';

/**
 * The paths below a site, as they stand in requests, at which everyone gets the same: pages, feeds and sitemap files. What the clock
 * will close is not among them: who serves it has to look at the clock each time.
 * @param view what everyone has
 */
export function publicPaths(view: LiveView, now: number): string[] {
  const { derived, site, offered, locked, asks } = view;
  const { addresses, hiddenBy, outline } = derived;
  const closing = closingRows(outline, site.settings, now);
  const isForAll = (row: number) => hiddenBy[row] === -1 && locked[row] === 0 && asks[row] === 0 && closing[row] === 0;
  const ofPages = addresses.flatMap((address, row) => {
    if (address === null || !isForAll(row)) return [];
    return hasFeed(view, row) ? [address, feedAddress(address)] : [address];
  });
  const offeredCount = offered.reduce((sum, one) => sum + one, 0);
  const parts = offeredCount > MAX_IN_ONE_FILE ? Math.ceil(offeredCount / MAX_IN_ONE_FILE) : 0;
  const sitemaps = ['/sitemap.xml', ...Array.from({ length: parts }, (_, index) => `/sitemap-${index + 1}.xml`)];
  return [...ofPages.map(encodeURI), ...sitemaps];
}

/** The longest name that files can have, in bytes. */
const MAX_NAME_LENGTH = 255;
/** What follows a page's address in the name of its file: no address ends so, and a page's file stands beside the folder of those below it. */
const PAGE = '~.html';
const ENDINGS = { br: '.br', gzip: '.gz', identity: '' } as const;

/**
 * The file for an answer, below the folder of its site's release: null where none is to stand for it. nginx looks for the compressed files
 * of pages only, and for none with a dot in the address, so that none leads out of the folder.
 */
export function fileFor(path: string, encoding: keyof typeof ENDINGS): string | null {
  const isXml = path.endsWith(`/${FEED}`) || /^\/sitemap(-\d+)?\.xml$/.test(path);
  if (!isXml && (path.includes('.') || encoding === 'identity')) return null;
  const name = path.slice(1) + (isXml ? '' : PAGE) + ENDINGS[encoding];
  return name.split('/').some((step) => step.length > MAX_NAME_LENGTH) ? null : name;
}
