import type { Site } from '../model/site.ts';
import { type Membership, accessTable, heldBackRows } from './access.ts';
import { type Derived, derive, derivedOf } from './derived.ts';

/** A site as one visitor has it at one moment. */
export interface VisitorView {
  readonly site: Site;
  /** What follows from the tree, with the pages that are closed to the visitor out of sight. */
  readonly derived: Derived;
  /** 1 where the visitor gets the node's entry with a lock. */
  readonly locked: Uint32Array;
  /** 1 where the node is open to the visitor and search engines are offered it. */
  readonly offered: Uint8Array;
  /** 1 where the node is a page that is open to the visitor and the site's search finds it. */
  readonly found: Uint8Array;
  /** Until when it holds, in milliseconds since 1970: then the next page opens or closes by the clock. */
  readonly until: number;
}

/** @param at the moment, in milliseconds since 1970 */
export function visitorView(site: Site, visitor: Membership, at: number): VisitorView {
  const plain = derivedOf(site);
  const { outline } = plain;
  const { open, locked, until } = accessTable(outline, [visitor], at);
  const hasRules = outline.ruled.length > 0;
  const derived = hasRules ? derive(site, outline, (row) => open[row] === 0 && locked[row] === 0) : plain;
  const [fromEngines, fromSearch] = [heldBackRows(outline, 'engines'), heldBackRows(outline, 'search')];
  const offered = Uint8Array.from(open, (isOpen, row) => (isOpen === 1 && fromEngines[row] === -1 ? 1 : 0));
  const found = Uint8Array.from(open, (isOpen, row) =>
    isOpen === 1 && fromSearch[row] === -1 && outline.nodes[row]!.type === 'page' ? 1 : 0,
  );
  return { site, derived, locked, offered, found, until };
}
