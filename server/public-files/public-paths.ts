import { closingRows } from '#core/derive/access.ts';
import type { LiveView } from '../live/live-view.ts';
import { FEED, MOST_IN_ONE_FILE, feedAddress, hasFeed } from '../live/machine-files.ts';

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
  const parts = offeredCount > MOST_IN_ONE_FILE ? Math.ceil(offeredCount / MOST_IN_ONE_FILE) : 0;
  const sitemaps = ['/sitemap.xml', ...Array.from({ length: parts }, (_, index) => `/sitemap-${index + 1}.xml`)];
  return [...ofPages.map(encodeURI), ...sitemaps];
}

/** The longest name that files can have, in bytes. */
const LONGEST_NAME = 255;
/** What follows the last step of a page's address in the name of its file. */
const PAGE = '~.html';
const UNOFFERED_PAGE = '~.noindex.html';
const ENDINGS = { br: '.br', gzip: '.gz', identity: '' } as const;

/**
 * The file for an answer, below the folder of its site's release: null where no file can stand for it. A page's file has a name that
 * no path of a request has, since the letters that follow a page's address in it stand in no address.
 */
export function fileFor(path: string, isOffered: boolean, encoding: keyof typeof ENDINGS): string | null {
  const isXml = path.endsWith(`/${FEED}`) || /^\/sitemap(-\d+)?\.xml$/.test(path);
  const steps = path.slice(1).split('/');
  // nginx is asked for names without dots only, so that none of them leads out of the folder.
  if (!isXml && path.includes('.')) return null;
  const name = path.slice(1) + (isXml ? '' : isOffered ? PAGE : UNOFFERED_PAGE) + ENDINGS[encoding];
  return steps.some((step) => step.length + UNOFFERED_PAGE.length + 3 > LONGEST_NAME) ? null : name;
}
