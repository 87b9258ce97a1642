import { waitingSettings } from '#core/changes/waiting-settings.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { isPractice } from '#core/model/practice.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import type { Waiting, WaitingFacts } from '../lens-definition.ts';

/** What differs from what visitors have: pages, those that were removed, and parts of the settings. */
export function publishWaiting({ site, derived }: WaitingFacts): Waiting {
  let differing = 0;
  let liveHere = 0;
  const { states } = derived;
  for (let row = 0; row < states.length; row++) {
    const state = states[row]!;
    if ((state === 'draft' || state === 'edited') && !isPractice(site, derived.outline.nodes[row]!.id)) differing++;
    if (state === 'live' || state === 'edited') liveHere++;
  }
  // What is live and does not stand in the tree was removed from it.
  differing += countLive(site.live) - liveHere + waitingSettings(site).length;
  return { count: differing, words: `${differing} differ from what is live` };
}

const liveCounts = new WeakMap<Site['live'], number>();

/** How many nodes are live; counted once for each release. */
function countLive(live: Site['live']): number {
  let count = liveCounts.get(live);
  if (count === undefined) liveCounts.set(live, (count = live.count((entry) => !entry.retired)));
  return count;
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
export const differs = (site: Site, id: PageId): boolean => !isPractice(site, id) && differencesOf(site, id).length > 0;
