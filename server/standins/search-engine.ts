import { upTo } from '#core/model/cut-text.ts';
import { load } from 'cheerio';
import robotsParser from 'robots-parser';
import type { SeenAddress } from '#core/derive/engine-findings.ts';
import { readSitemapFile } from '#core/formats/sitemap-file.ts';

/** The robot goes by this name in `robots.txt`. */
const ROBOT = 'SpurStandInEngine';
const AT_ONCE = 6;
const ONE_ANSWER_MS = 10_000;
const MOST_TRIES = 3;

interface Known {
  isInSitemap: boolean;
  isLinked: boolean;
}

/**
 * The stand-in for a search engine's robot: reads a live site as an engine does that knows only its origin, from
 * `robots.txt` and the sitemap file on, and by the links of the pages that it finds. It has no account and no cookie.
 * Gives what it saw at each address, and whether it saw all that it found. It tells how many it has read and knows of,
 * before each one. @throws where the signal is given, and where the site does not answer
 */
export async function readAsEngine(
  origin: string,
  key: string,
  most: number,
  tell: (read: number, known: number) => Promise<void> = () => Promise.resolve(),
  signal: AbortSignal = new AbortController().signal,
): Promise<{ seen: SeenAddress[]; isWhole: boolean }> {
  const base = `${origin}/${key}`;
  const ask = (url: string) =>
    fetch(url, {
      redirect: 'manual',
      headers: { 'User-Agent': ROBOT },
      signal: AbortSignal.any([signal, AbortSignal.timeout(ONE_ANSWER_MS)]),
    });
  // A connection that closes just as it is used again says nothing about the site, so it is asked again.
  const get = async (url: string): Promise<Response> => {
    for (let tries = 1; ; tries++)
      try {
        return await ask(url);
      } catch (fault) {
        if (!(fault instanceof TypeError) || tries === MOST_TRIES) throw fault;
      }
  };
  const robots = robotsParser(`${origin}/robots.txt`, await (await get(`${origin}/robots.txt`)).text());
  // The site may call itself by another origin than the one that it is read at.
  const files = robots.getSitemaps().filter((one) => new URL(one).pathname.startsWith(`/${key}/`));
  const bases = [base, ...files.map((one) => `${new URL(one).origin}/${key}`)];
  const here = (url: string) =>
    bases.reduce((at, one) => (at.startsWith(`${one}/`) ? base + at.slice(one.length) : at), url);
  const known = new Map<string, Known>();
  const waiting: string[] = [];
  const meet = (url: string, how: keyof Known) => {
    const address = addressIn(base, here(url));
    // Files go with the pages that show them.
    if (address === null || address.startsWith('/~files/')) return;
    let one = known.get(address);
    if (!one) {
      known.set(address, (one = { isInSitemap: false, isLinked: false }));
      waiting.push(address);
    }
    one[how] = true;
  };
  for (const file of files)
    for (const url of await sitemapAddresses(file, (url) => get(here(url)))) meet(url, 'isInSitemap');
  meet(`${base}/`, 'isLinked');

  const seen = new Map<string, Omit<SeenAddress, keyof Known>>();
  const read = async () => {
    for (let address = waiting.shift(); address !== undefined && seen.size < most; address = waiting.shift()) {
      await tell(seen.size, known.size);
      signal.throwIfAborted();
      const url = base + encodeURI(address);
      const isAllowed = robots.isAllowed(url, ROBOT) !== false;
      seen.set(address, { address, isAllowed, status: 0, saysNoIndex: false, canonical: null });
      if (!isAllowed) continue;
      const response = await get(url);
      const { status } = response;
      const movedTo = response.headers.get('location');
      if (movedTo !== null) meet(new URL(movedTo, url).href, 'isLinked');
      const isPage = status === 200 && (response.headers.get('content-type') ?? '').startsWith('text/html');
      const $ = load(isPage ? await response.text() : '');
      if (!isPage) await response.body?.cancel();
      $('a[href]').each((_, link) => {
        const href = $(link).attr('href')!;
        if (!/\bnofollow\b/i.test($(link).attr('rel') ?? '') && URL.canParse(href, url))
          meet(new URL(href, url).href, 'isLinked');
      });
      const robotsMeta = `${$('meta[name="robots" i]').attr('content') ?? ''} ${response.headers.get('x-robots-tag') ?? ''}`;
      const canonical = $('link[rel="canonical"]').attr('href');
      seen.set(address, {
        address,
        isAllowed,
        status,
        saysNoIndex: /\b(noindex|none)\b/i.test(robotsMeta),
        canonical: canonical === undefined ? null : (addressIn(base, here(canonical)) ?? canonical),
      });
    }
  };
  // Each of them goes on as long as there is something to read; the last one finds nothing more.
  while (waiting.length > 0 && seen.size < most) await Promise.all(Array.from({ length: AT_ONCE }, read));
  return {
    seen: [...seen.values()].map((one) => ({ ...one, ...known.get(one.address)! })),
    isWhole: waiting.length === 0,
  };
}

async function sitemapAddresses(file: string, get: (url: string) => Promise<Response>): Promise<string[]> {
  const response = await get(file);
  const read = response.ok ? readSitemapFile(await response.text()) : null;
  if (!read?.ok) return [];
  if (read.kind === 'addresses') return [...read.addresses];
  return (await Promise.all(read.addresses.map((one) => sitemapAddresses(one, get)))).flat();
}

/** An address below the site, without query and fragment; null for one elsewhere. */
function addressIn(base: string, url: string): string | null {
  const plain = upTo(url, '?', '#');
  if (!plain.startsWith(`${base}/`)) return null;
  try {
    return decodeURIComponent(plain.slice(base.length)).normalize('NFC');
  } catch {
    return null;
  }
}
