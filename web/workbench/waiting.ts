import type { Derived } from '#core/derive/derived.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import type { Lens } from './workbench-context.tsx';

export interface Waiting {
  readonly count: number;
  readonly words: string;
}

/** What waits under each lens. */
export function countWaiting(site: Site, derived: Derived): Readonly<Record<Lens, Waiting>> {
  let unwritten = 0;
  let dead = 0;
  let differing = removedButLive(site).length;
  derived.outline.nodes.forEach((node, row) => {
    if (node.type === 'page' && node.content === null) unwritten++;
    if (derived.menu[row] === 'leads nowhere') dead++;
    const state = derived.states[row]!;
    if (state === 'draft' || state === 'edited') differing++;
  });
  return {
    write: { count: unwritten, words: `${unwritten} without text` },
    menus: { count: dead, words: `${dead} that lead nowhere` },
    publish: { count: differing, words: `${differing} differ from what is live` },
  };
}

/** Pages that were removed from the tree and that visitors still have. */
export function removedButLive(site: Site): PageId[] {
  const found: PageId[] = [];
  site.live.forEach((entry, id) => {
    if (!entry.retired && !maybeNodeAt(site, id)) found.push(id);
  });
  return found;
}

/** Whether a release would do something for the node. */
export const differs = (site: Site, id: PageId): boolean => differencesOf(site, id).length > 0;
