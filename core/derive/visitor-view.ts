import type { StandsIn } from '../model/access.ts';
import type { Site } from '../model/site.ts';
import { type Membership, accessTable, heldBackRows } from './access.ts';
import { type Derived, derivedFor, derivedOf, hiddenFor } from './derived.ts';

/** A site as one visitor has it at one moment. */
export interface VisitorView {
  readonly site: Site;
  readonly visitor: Membership;
  /** The moment, in milliseconds since 1970. */
  readonly at: number;
  readonly isSignedIn: boolean;
  /** What follows from the tree, with the pages that are closed to the visitor out of sight. */
  readonly derived: Derived;
  /** 1 where the visitor gets the node's entry with a lock. */
  readonly locked: Uint8Array;
  /** 1 where the visitor would be let in with a passphrase that they have not given. */
  readonly asks: Uint8Array;
  /** 1 where the node is open to the visitor and search engines are offered it. */
  readonly offered: Uint8Array;
  /** 1 where the node is a page that is open to the visitor and the site's search finds it. */
  readonly found: Uint8Array;
  /** The rows of the pages that stand in for what is built in, as far as the visitor may open them; the first in the tree counts. */
  readonly standingIn: ReadonlyMap<StandsIn, number>;
  /** Until when it holds, in milliseconds since 1970: then the next page opens or closes by the clock. */
  readonly until: number;
}

/**
 * @param at the moment, in milliseconds since 1970
 * @param withLocks whether pages with a lock are seen; without, they are out of sight like all that is closed
 */
export function visitorView(
  site: Site,
  visitor: Membership,
  at: number,
  isSignedIn: boolean,
  withLocks = true,
): VisitorView {
  const plain = derivedOf(site);
  const { outline } = plain;
  const { open, locked, asks, until } = accessTable(outline, site.settings, [visitor], at);
  const hasRules = outline.ruled.length > 0;
  const other = isSignedIn ? 'signed-out' : 'signed-in';
  const derived = hasRules
    ? derivedFor(
        plain,
        hiddenFor(plain, withLocks ? open.map((bits, row) => bits | locked[row]!) : open, 0),
        (row) => outline.nodes[row]!.access?.menuFor === other,
      )
    : plain;
  const standingIn = new Map<StandsIn, number>();
  for (const row of outline.ruled) {
    const { type, access } = outline.nodes[row]!;
    const { standsIn } = access!;
    if (standsIn !== null && type === 'page' && open[row] === 1 && !standingIn.has(standsIn))
      standingIn.set(standsIn, row);
  }
  const [fromEngines, fromSearch] = [
    heldBackRows(outline, site.settings, 'engines'),
    heldBackRows(outline, site.settings, 'search'),
  ];
  // What stands in is what visitors get instead of a page, and nothing to be found by itself.
  const isFindable = (row: number) => open[row] === 1 && (outline.nodes[row]!.access?.standsIn ?? null) === null;
  const offered = Uint8Array.from(open, (_, row) => (isFindable(row) && fromEngines[row] === -1 ? 1 : 0));
  const found = Uint8Array.from(open, (_, row) =>
    isFindable(row) && fromSearch[row] === -1 && outline.nodes[row]!.type === 'page' ? 1 : 0,
  );
  return {
    site,
    visitor,
    at,
    isSignedIn,
    derived,
    locked: withLocks ? Uint8Array.from(locked) : new Uint8Array(locked.length),
    asks: withLocks ? Uint8Array.from(asks) : new Uint8Array(asks.length),
    offered,
    found,
    standingIn,
    until,
  };
}
