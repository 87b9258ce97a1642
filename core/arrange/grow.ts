import type { ListEntry } from '../formats/indented-list.ts';
import type { ContentId, Language, PageId } from '../model/ids.ts';
import { carriedChanges } from '../model/page-fields.ts';
import { type Site, branchOf, nodeAt, maybeNodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { nearestParent, removedWith } from '../operations/page-put-back.ts';
import { topmost } from './arrange.ts';
import type { DropPlace } from './landing.ts';

type Add = Extract<Operation, { name: 'page.add' }>;
type Copy = Extract<Operation, { name: 'page.copy' }>;
type Where = Pick<DropPlace, 'parent' | 'after'>;

/** The pages of a list that was typed or pasted, at a place. `newId` makes an id. */
export function addList(entries: readonly ListEntry[], place: Where, language: Language, newId: () => PageId): Add[] {
  /** The latest node of each depth. */
  const above: PageId[] = [];
  return entries.map(({ title, depth }) => {
    const page = newId();
    const parent = depth === 0 ? place.parent : above[depth - 1]!;
    const after = above[depth] ?? (depth === 0 ? place.after : null);
    above.length = depth;
    above[depth] = page;
    return { name: 'page.add', page, place: { parent, after }, title: { [language]: title } };
  });
}

/** Copies nodes within their site, with or without what is below them. */
export function copyTo(
  site: Site,
  ids: readonly PageId[],
  place: Where,
  withBelow: boolean,
  newId: () => PageId,
): Copy[] {
  let { after } = place;
  return topmost(site, ids).map((page) => {
    const ofCopy = Object.fromEntries((withBelow ? branchOf(site, page) : [page]).map((id) => [id, newId()]));
    const operation: Copy = { name: 'page.copy', page, place: { parent: place.parent, after }, ids: ofCopy };
    after = ofCopy[page]!;
    return operation;
  });
}

/** What is left behind to another site, and why. */
export interface LeftBehind {
  readonly page: PageId;
  readonly why: 'link-target-stays' | 'home-stays' | 'access-stays';
}

export interface Carried {
  readonly operations: Add[];
  /** The texts that have to be there too. */
  readonly contents: readonly ContentId[];
  readonly left: readonly LeftBehind[];
}

/** Copies nodes of one site into another. A link to a page that stays behind is left out, with all that says so. */
export function carryTo(
  source: Site,
  ids: readonly PageId[],
  target: Language,
  place: Where,
  withBelow: boolean,
  newId: () => PageId,
): Carried {
  const taken = topmost(source, ids).flatMap((id) => (withBelow ? branchOf(source, id) : [id]));
  const ofCopy = new Map(taken.map((id) => [id, newId()]));
  const left: LeftBehind[] = [];
  const first: Add[] = [];
  const links: Add[] = [];
  /** What was a page when the link was made may be a heading by now, or a link itself. */
  const copyOfPage = (id: PageId) => (maybeNodeAt(source, id)?.type === 'page' ? ofCopy.get(id) : undefined);
  /** The latest copy below each parent, so that the order is kept. */
  const latest = new Map<PageId | null, PageId | null>([[place.parent, place.after]]);
  for (const id of taken) {
    const node = nodeAt(source, id);
    const leadsTo = node.target && 'page' in node.target ? copyOfPage(node.target.page) : undefined;
    if (node.target && 'page' in node.target && leadsTo === undefined) {
      left.push({ page: id, why: 'link-target-stays' });
      continue;
    }
    if (source.settings.home === id) left.push({ page: id, why: 'home-stays' });
    // Audiences are of the site that it leaves.
    if (node.access !== null) left.push({ page: id, why: 'access-stays' });
    const parent = (node.parent === null ? undefined : ofCopy.get(node.parent)) ?? place.parent;
    const page = ofCopy.get(id)!;
    const add: Add = {
      name: 'page.add',
      page,
      place: { parent, after: latest.get(parent) ?? null },
      ...carriedChanges(node, source.settings.language, target),
    };
    if (leadsTo === undefined) {
      first.push(add);
      latest.set(parent, page);
    } else links.push({ ...add, target: { page: leadsTo } });
  }
  return {
    // Each link follows the page before it, so those that follow one page are added last first.
    operations: [...first, ...links.reverse()],
    contents: [...new Set(first.flatMap((add) => [add.content, add.plan?.notes].filter((id) => id != null)))],
    left,
  };
}

/**
 * Puts one node of a removed branch back alone, under the nearest page above it that is there; all others stay removed.
 * What stood below it becomes removed branches of their own.
 */
export function putBackAlone(site: Site, page: PageId): Operation[] {
  const node = site.nodes.get(page);
  const top = node?.removedWith;
  if (!node || !top) return [];
  const below = removedWith(site, top).filter((id) => id !== top && site.nodes.get(id)!.parent === page);
  const out: Operation[] = below.map((id) => ({ name: 'page.remove', page: id }));
  if (page === top) return [{ name: 'page.putBack', page }, ...out];
  return [
    { name: 'page.putBack', page: top },
    ...out,
    { name: 'page.move', page, place: { parent: nearestParent(site, top) } },
    { name: 'page.remove', page: top },
  ];
}
