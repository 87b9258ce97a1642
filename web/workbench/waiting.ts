import type { SettingsFinding } from '#core/checks/settings-links.ts';
import type { Derived } from '#core/derive/derived.ts';
import { arrangedNow } from '#core/derive/menu-merge.ts';
import { waitingSettings } from '#core/changes/waiting-settings.ts';
import { answerOfRow } from '#core/derive/menu-range.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { openQuestions } from '#core/model/plan.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import type { Lens } from './lenses.ts';
import type { Findings } from './use-findings.ts';

export interface Waiting {
  readonly count: number;
  readonly words: string;
}

/**
 * What waits under each lens; `toSettle` of what was said of the plan, `findings` about pages and their links as far as they are
 * known, and `settingsFindings` about links of menus and redirects.
 */
export function countWaiting(
  site: Site,
  derived: Derived,
  toSettle: number,
  findings: Findings,
  settingsFindings: readonly SettingsFinding[],
): Readonly<Record<Lens, Waiting>> {
  let unwritten = 0;
  let differing = 0;
  let liveHere = 0;
  let questions = 0;
  derived.outline.nodes.forEach((node, row) => {
    if (node.plan !== null) questions += openQuestions(node.plan);
    if (node.type === 'page' && node.content === null) unwritten++;
    const state = derived.states[row]!;
    if (state === 'draft' || state === 'edited') differing++;
    if (state === 'live' || state === 'edited') liveHere++;
  });
  let amiss = settingsFindings.length;
  for (const ofPage of findings.ofLinks?.values() ?? []) amiss += ofPage.length;
  const lacking = findings.ofPages?.size ?? 0;
  let dead = 0;
  for (const row of derived.outline.aliases) if (answerOfRow(derived, row) === 'leads nowhere') dead++;
  const proposals = site.settings.menus.reduce(
    (count, menu) => count + (menu.isByHand ? arrangedNow(site, menu).proposals.length : 0),
    0,
  );
  // What is live and does not stand in the tree was removed from it.
  differing += countLive(site.live) - liveHere + waitingSettings(site).length;
  return {
    plan: {
      count: questions + toSettle,
      words: [
        (questions > 0 || toSettle === 0) && (questions === 1 ? '1 open question' : `${questions} open questions`),
        toSettle > 0 && `${toSettle} comments to settle`,
      ]
        .filter(Boolean)
        .join(', '),
    },
    write: { count: unwritten, words: `${unwritten} without text` },
    access: { count: 0, words: '' },
    menus: {
      count: proposals + dead,
      words: [
        (proposals > 0 || dead === 0) &&
          (proposals === 1 ? '1 proposal to settle' : `${proposals} proposals to settle`),
        dead > 0 && `${dead} that lead nowhere`,
      ]
        .filter(Boolean)
        .join(', '),
    },
    publish: { count: differing, words: `${differing} differ from what is live` },
    checks: {
      count: amiss + lacking,
      words: [
        (amiss > 0 || lacking === 0) && (amiss === 1 ? '1 link to mend' : `${amiss} links to mend`),
        lacking > 0 && (lacking === 1 ? '1 page that lacks something' : `${lacking} pages that lack something`),
      ]
        .filter(Boolean)
        .join(', '),
    },
  };
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
export const differs = (site: Site, id: PageId): boolean => differencesOf(site, id).length > 0;
