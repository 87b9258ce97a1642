import { planRelease, waitingPages } from '../changes/release-plan.ts';
import type { PageId } from '../model/ids.ts';
import { SETTINGS_PARTS } from '../model/settings-parts.ts';
import { type LiveNode, type Site, branchOf, nodeAt } from '../model/site.ts';
import type { OperationDraws } from './draw-edit.ts';
import type { Draw } from './draw.ts';
import { NOBODY, maybePage } from './draw-values.ts';

/** The pages that visitors have and that none of theirs stands below: these can be taken down alone. */
function liveLeaves(site: Site): PageId[] {
  const above = new Set<PageId | null>();
  site.live.forEach(({ node, retired }) => {
    if (!retired) above.add(node.parent);
  });
  return [...site.live].filter(([id, { retired }]) => !retired && !above.has(id)).map(([id]) => id);
}

/** What no plan says: a page without the one above it, one taken down above others, one that visitors never had. */
function drawBrokenRelease(site: Site, draw: Draw, live: readonly PageId[]): { pages: PageId[]; retire: PageId[] } {
  const leaves = new Set(liveLeaves(site));
  const isLive = (id: PageId | null) => id === null || live.includes(id);
  const alone = branchOf(site, null).filter((id) => !isLive(nodeAt(site, id).parent));
  const wrong = [
    { pages: draw.some(alone, 1, 1), retire: [] },
    {
      pages: [],
      retire: draw.some(
        live.filter((id) => !leaves.has(id)),
        1,
        1,
      ),
    },
    {
      pages: [],
      retire: draw.some(
        [...site.nodes.keys()].filter((id) => !isLive(id)),
        1,
        1,
      ),
    },
    { pages: [NOBODY], retire: [] },
  ];
  return draw.of(wrong.filter(({ pages, retire }) => pages.length + retire.length > 0));
}

/** A release as it is planned; an odd one breaks a rule. */
export const drawReleaseMake: OperationDraws['release.make'] = (site, draw) => {
  const live = [...site.live].filter(([, { retired }]) => !retired).map(([id]) => id);
  const page = maybePage(site, draw);
  const asked = {
    pages: draw.some(waitingPages(site), 0, 12),
    retire: draw.chance(0.3) ? draw.some(live, 1, 2) : [],
    ...draw.maybe(0.4, () => ({ settings: draw.some(SETTINGS_PARTS, 0, 4) })),
  };
  const leadsTo = Object.fromEntries(
    asked.retire.map((id, at) => [id, at === 0 || page === undefined ? ('gone' as const) : { page }]),
  ) as Record<PageId, 'gone' | { page: PageId }>;
  const { operation } = planRelease(site, { ...asked, ...(draw.chance(0.5) && { leadsTo }) });
  return draw.odd() ? { ...operation, ...drawBrokenRelease(site, draw, live) } : operation;
};

/** A way back: pages that visitors have are gone, or are as they were, and the settings too. */
export const drawReleaseTakeBack: OperationDraws['release.takeBack'] = (site, draw) => {
  const before: Record<PageId, LiveNode | null> = {};
  for (const id of draw.some(liveLeaves(site), 1, 3)) {
    const was = site.live.get(id);
    if (was === undefined) continue;
    before[id] = draw.of([
      null,
      { node: was.node, retired: true },
      { node: { ...was.node, title: { en: `Former ${draw.int(1, 99)}` } }, retired: false },
    ]);
  }
  return {
    name: 'release.takeBack',
    before,
    settings: site.liveSettings && draw.chance(0.5) ? { ...site.liveSettings, name: 'Former' } : site.liveSettings,
  };
};
