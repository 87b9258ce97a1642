import robotsParser, { type Robot } from 'robots-parser';
import { decodeText } from './decode-text.ts';
import { type FetchLimits, politeFetch } from './polite-fetch.ts';

/** Why a site cannot be read, in words for the person. */
export class CrawlFault extends Error {
  /** Whether it is because nothing may be asked there that is not in the public net. */
  readonly isForbidden: boolean;

  constructor(words: string, isForbidden = false) {
    super(words);
    this.isForbidden = isForbidden;
  }
}

const MAX_HOPS = 5;
const MAX_SIZE = 500_000;

/**
 * What the robots.txt of an address's host lets be read (RFC 9309): no file allows all; a server that fails, or cannot be reached,
 * allows nothing. @throws CrawlFault then
 */
export async function robotsAt(address: string, limits: FetchLimits, signal: AbortSignal): Promise<Robot> {
  const own = new URL('/robots.txt', address).href;
  let at = own;
  for (let hop = 0; hop < MAX_HOPS; hop++) {
    const fetched = await politeFetch(at, { ...limits, largest: MAX_SIZE }, signal);
    if (!fetched.ok) throw new CrawlFault(fetched.detail, fetched.why === 'forbidden-host');
    if (fetched.movedTo !== null) at = fetched.movedTo;
    else if (fetched.status >= 500)
      throw new CrawlFault(
        `Its robots.txt answers with ${fetched.status}, so nothing may be read now. Try again later.`,
      );
    else return robotsParser(own, fetched.status < 300 ? decodeText(fetched.body) : '');
  }
  return robotsParser(own, '');
}
