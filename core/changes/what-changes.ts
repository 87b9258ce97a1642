import { derivedOf, menuNumber } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';

/** The consequences of a change of the draft, computed before it is made. Each list is in tree order. */
export interface Consequences {
  /** Pages whose address differs; null where there is none before or after. Pages that come or go are not among them. */
  readonly addresses: readonly { page: PageId; before: string; after: string }[];
  readonly added: readonly PageId[];
  readonly removed: readonly PageId[];
  /** Pages that nobody can reach any more because they, or a branch above, are hidden. */
  readonly closed: readonly PageId[];
  readonly opened: readonly PageId[];
  /** Entries of the main menu that come, go, or have another number. */
  readonly menu: readonly { page: PageId; before: string | null; after: string | null }[];
}

/** What differs, for visitors, between two drafts of one site. With the same site twice every list is empty. */
export function whatChanges(before: Site, after: Site): Consequences {
  const addresses: { page: PageId; before: string; after: string }[] = [];
  const added: PageId[] = [];
  const removed: PageId[] = [];
  const closed: PageId[] = [];
  const opened: PageId[] = [];
  const menu: { page: PageId; before: string | null; after: string | null }[] = [];
  if (before === after) return { addresses, added, removed, closed, opened, menu };
  const was = derivedOf(before);
  const is = derivedOf(after);
  is.outline.nodes.forEach((node, row) => {
    const old = was.outline.rowOf.get(node.id);
    const number = menuNumber(is, row);
    if (old === undefined) {
      added.push(node.id);
      if (number !== null) menu.push({ page: node.id, before: null, after: number });
      return;
    }
    const addressBefore = was.addresses[old];
    const addressAfter = is.addresses[row];
    if (addressBefore !== addressAfter && addressBefore && addressAfter)
      addresses.push({ page: node.id, before: addressBefore, after: addressAfter });
    const couldBeReached = was.hiddenBy[old] === -1;
    const canBeReached = is.hiddenBy[row] === -1;
    if (couldBeReached !== canBeReached) (canBeReached ? opened : closed).push(node.id);
    const numberBefore = menuNumber(was, old);
    if (numberBefore !== number) menu.push({ page: node.id, before: numberBefore, after: number });
  });
  was.outline.nodes.forEach((node, row) => {
    if (is.outline.rowOf.has(node.id)) return;
    removed.push(node.id);
    const number = menuNumber(was, row);
    if (number !== null) menu.push({ page: node.id, before: number, after: null });
  });
  return { addresses, added, removed, closed, opened, menu };
}
