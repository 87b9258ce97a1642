import { NOBODY_KNOWN } from './access.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { visitorView } from './visitor-view.ts';

/** What a search engine's robot found at an address of the site. */
export interface SeenAddress {
  /** Below the site, beginning with `/`. */
  readonly address: string;
  /** Whether `robots.txt` lets it be read; where not, nothing else is known of it. */
  readonly isAllowed: boolean;
  readonly status: number;
  /** Whether it asks not to be indexed, by its header or in the page. */
  readonly saysNoIndex: boolean;
  /** The address that it names as its own, or null where it names none. One of another site as a whole. */
  readonly canonical: string | null;
  readonly isInSitemap: boolean;
  /** Whether a page that was read links to it. */
  readonly isLinked: boolean;
}

/** How what an engine would do differs from what is intended. */
export type EngineDifference =
  /** It should be indexed, and would not be. */
  | 'missed'
  /** It would be indexed, and should not be. */
  | 'uninvited'
  /** It would be indexed as intended, and the sitemap file leaves it out. */
  | 'not in the sitemap file'
  /** The sitemap file names it, and it would not be indexed. */
  | 'in the sitemap by mistake'
  /** A page links to it, and there is nothing. */
  | 'broken link';

export interface EngineFinding {
  readonly address: string;
  readonly page: PageId | null;
  readonly difference: EngineDifference;
  /** What the robot saw that decided it, as a sentence. */
  readonly because: string;
}

export interface EngineReport {
  /** How many addresses an engine would index, and how many it is meant to. */
  readonly indexed: number;
  readonly intended: number;
  readonly findings: readonly EngineFinding[];
}

/**
 * What a search engine would index of a live site, held against what is intended: the pages that are open to everyone and
 * not held back. @param at the moment, in milliseconds since 1970
 */
export function engineReport(site: Site, seen: readonly SeenAddress[], at: number): EngineReport {
  const { derived, offered } = visitorView(site, NOBODY_KNOWN, at, false);
  const intended = new Map<string, PageId>();
  derived.addresses.forEach((address, row) => {
    if (address !== null && offered[row] === 1) intended.set(address, derived.outline.nodes[row]!.id);
  });
  const findings: EngineFinding[] = [];
  const find = (address: string, difference: EngineDifference, because: string) => {
    const row = derived.rowAt.get(address);
    findings.push({ address, page: row === undefined ? null : derived.outline.nodes[row]!.id, difference, because });
  };
  const known = new Set<string>();
  let indexed = 0;
  for (const one of seen) {
    known.add(one.address);
    const obstacle = obstacleOf(one);
    const isIntended = intended.has(one.address);
    if (obstacle === null) {
      indexed++;
      if (!isIntended) find(one.address, 'uninvited', 'It answers with a page, and nothing asks to leave it out.');
      else if (!one.isInSitemap) find(one.address, 'not in the sitemap file', 'Only links lead to it.');
    } else if (isIntended) find(one.address, 'missed', obstacle);
    else if (one.isInSitemap) find(one.address, 'in the sitemap by mistake', obstacle);
    else if (one.isLinked && (one.status === 404 || one.status === 410)) find(one.address, 'broken link', obstacle);
  }
  for (const address of intended.keys())
    if (!known.has(address)) find(address, 'missed', 'Neither a link nor the sitemap file leads to it.');
  return { indexed, intended: intended.size, findings };
}

/** What keeps an engine from indexing an address, as a sentence; null where nothing does. */
function obstacleOf({ address, isAllowed, status, saysNoIndex, canonical }: SeenAddress): string | null {
  if (!isAllowed) return 'The file robots.txt asks not to read it.';
  if (status >= 300 && status < 400) return 'It leads on to another address.';
  if (status !== 200) return `It answers with ${status}.`;
  if (saysNoIndex) return 'It asks not to be indexed.';
  if (canonical !== null && canonical !== address) return `It names ${canonical} as its own address.`;
  return null;
}
