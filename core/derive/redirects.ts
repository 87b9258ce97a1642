import { upTo } from '../model/cut-text.ts';
import type { PageId } from '../model/ids.ts';
import { type Destination, type Redirect, isPattern } from '../model/redirect.ts';
import type { LiveNode, Site } from '../model/site.ts';
import { derivedOf, haveSameAddresses } from './derived.ts';
import { liveSiteOf } from './live-site.ts';

/** Why an address leads elsewhere. */
export const REDIRECT_REASONS = ['by hand', 'moved', 'taken down', 'old site', 'pattern'] as const;
export type RedirectReason = (typeof REDIRECT_REASONS)[number];

/** Where an address leads that no page has. Pages are named, so that one hop reaches them wherever they stand. */
export interface Lead {
  /** The address that leads there, as lists have it: with its query where it is one of the old site, or a pattern. */
  readonly path: string;
  readonly to: Destination;
  readonly because: RedirectReason;
  /** The redirect, where somebody made it by hand. */
  readonly redirect: Redirect | null;
}

/** What visitors' addresses that no page has any more are looked up in. */
export interface RedirectSources {
  /** The page that had an address last, of all that ever were live and are not in use. */
  readonly former: ReadonlyMap<string, PageId>;
  /** The page that takes over an address of the old site, or null where it is gone; by path and query. */
  readonly ofOldSite: ReadonlyMap<string, PageId | null>;
}

/**
 * Where an address of the live site leads that no page of it has: what was made by hand comes first, then the page that had
 * it, then the old site, then patterns, the longest first. Undefined where it leads nowhere, as for an address in use.
 * What it names is a page with an address, an outside address, or `gone`; so there is never a second hop, nor a loop.
 */
export function resolveRedirect(site: Site, { former, ofOldSite }: RedirectSources, path: string): Lead | undefined {
  const live = liveSiteOf(site);
  const { rowAt } = derivedOf(live);
  const bare = upTo(path, '?');
  if (rowAt.has(bare)) return undefined;
  const { exact, patterns } = redirectIndex(live.settings.redirects);
  const byHand = exact.get(path) ?? exact.get(bare);
  if (byHand) return { path: byHand.from, to: landed(site, byHand.to), because: 'by hand', redirect: byHand };
  const page = former.get(bare);
  if (page !== undefined) {
    const isLive = site.live.get(page)?.retired === false;
    return { path: bare, to: landed(site, { page }), because: isLive ? 'moved' : 'taken down', redirect: null };
  }
  const old = [path, bare].find((one) => ofOldSite.has(one));
  if (old !== undefined) {
    const takesOver = ofOldSite.get(old)!;
    const to = takesOver === null ? 'gone' : landed(site, { page: takesOver });
    return { path: old, to, because: 'old site', redirect: null };
  }
  const pattern = patterns.find(({ from }) => bare.startsWith(from.slice(0, -1)) || bare === from.slice(0, -2));
  if (pattern)
    return { path: pattern.from, to: belowPattern(site, pattern, bare), because: 'pattern', redirect: pattern };
  return undefined;
}

/** An address of the live site that leads elsewhere, or would. */
export interface LeadingAddress extends Lead {
  /** Whether a page has the address by now, so that what was made by hand rests. */
  readonly isResting: boolean;
}

/** Every address of the live site that leads elsewhere: those made by hand first, in their order, then the others by address. */
export function leadingAddresses(site: Site, sources: RedirectSources): LeadingAddress[] {
  const live = liveSiteOf(site);
  const { rowAt } = derivedOf(live);
  const { redirects } = live.settings;
  const byHand = redirects.map((redirect): LeadingAddress => ({
    path: redirect.from,
    to: landed(site, redirect.to),
    because: isPattern(redirect) ? 'pattern' : 'by hand',
    redirect,
    isResting: !isPattern(redirect) && rowAt.has(redirect.from),
  }));
  const others = new Set([...sources.former.keys(), ...sources.ofOldSite.keys()]);
  const found = [...others].sort().flatMap((path): LeadingAddress[] => {
    const lead = resolveRedirect(site, sources, path);
    return lead && lead.redirect === null ? [{ ...lead, isResting: false }] : [];
  });
  return [...byHand, ...found];
}

/**
 * The page with an address that a page stands for now: itself while it is live; for one that was taken down where its
 * address was said to lead, or the nearest page above that is live; else the home page.
 */
export function standInFor(site: Site, page: PageId): PageId | 'gone' {
  const live = liveSiteOf(site);
  const { outline, addresses, home } = derivedOf(live);
  const passed = new Set<PageId>();
  for (let at: PageId | null = page; at !== null;) {
    const row = outline.rowOf.get(at);
    if (row !== undefined && addresses[row] !== null) return at;
    // Pages that lead to one another, all of them taken down, lead nowhere.
    if (passed.has(at)) return 'gone';
    passed.add(at);
    const entry: LiveNode | undefined = site.live.get(at);
    if (entry?.retired && entry.leadsTo === 'gone') return 'gone';
    at =
      entry === undefined
        ? null
        : entry.retired && entry.leadsTo
          ? (entry.leadsTo as { page: PageId }).page
          : entry.node.parent;
  }
  return home ?? 'gone';
}

const landed = (site: Site, to: Destination): Destination => {
  if (to === 'gone' || !('page' in to)) return to;
  const page = standInFor(site, to.page);
  return page === 'gone' ? 'gone' : { page };
};

/** Below a pattern the steps are kept where a page below its destination has them; else it leads to the destination. */
function belowPattern(site: Site, { from, to }: Redirect, path: string): Destination {
  const destination = landed(site, to);
  if (destination === 'gone' || !('page' in destination)) return destination;
  const { outline, addresses, rowAt } = derivedOf(liveSiteOf(site));
  const base = addresses[outline.rowOf.get(destination.page)!]!;
  const row = rowAt.get(`${base === '/' ? '' : base}${path.slice(from.length - 2)}`);
  return row === undefined ? destination : { page: outline.nodes[row]!.id };
}

interface RedirectIndex {
  readonly exact: ReadonlyMap<string, Redirect>;
  /** The longest first: it is the nearest. */
  readonly patterns: readonly Redirect[];
}
const known = new WeakMap<readonly Redirect[], RedirectIndex>();

function redirectIndex(redirects: readonly Redirect[]): RedirectIndex {
  let index = known.get(redirects);
  if (!index) {
    index = {
      exact: new Map(redirects.filter((one) => !isPattern(one)).map((one) => [one.from, one])),
      patterns: redirects.filter(isPattern).sort((a, b) => b.from.length - a.from.length),
    };
    known.set(redirects, index);
  }
  return index;
}

/**
 * The addresses that leave use by a release, each with the page that had it. They are what `former` gains.
 * @param before @param after the site as a whole, before and after the release
 */
export function addressesLeft(before: Site, after: Site): Map<string, PageId> {
  const left = new Map<string, PageId>();
  const [was, is] = [liveSiteOf(before), liveSiteOf(after)];
  if (was === is || before.liveSettings === null) return left;
  const then = derivedOf(was);
  const now = derivedOf(is);
  if (haveSameAddresses(then, now)) return left;
  const { outline, addresses } = then;
  addresses.forEach((address, row) => {
    const { id } = outline.nodes[row]!;
    const rowNow = now.outline.rowOf.get(id);
    if (address !== null && (rowNow === undefined || now.addresses[rowNow] !== address)) left.set(address, id);
  });
  return left;
}
