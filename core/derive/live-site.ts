import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { withNodes } from '../model/site-edit.ts';
import { type Site, makeSite } from '../model/site.ts';
import { liveStepTo, noteStep } from '../model/steps.ts';

const known = new WeakMap<object, Site>();
/** So many releases back a live site is looked for that can be gone on from. */
const MAX_STEPS = 16;
/** Where more live states than these differ the site is made anew. */
const MAX_CHANGED = 500;

/** The site as visitors have it: the live states of the nodes that are not retired, as a tree of their own. After a release it is made of the one before. */
export function liveSiteOf(site: Site): Site {
  const before = known.get(site.live);
  const settings = site.liveSettings ?? site.settings;
  if (before && before.settings === settings && before.key === site.key) return before;
  const live = before?.key === site.key ? withSettingsOf(before, site) : (fromBefore(site) ?? makeLiveSite(site));
  known.set(site.live, live);
  return live;
}

/** The live site made anew. */
export function makeLiveSite(site: Site): Site {
  const nodes: SiteNode[] = [];
  for (const entry of site.live.values()) if (!entry.retired) nodes.push(entry.node);
  const settings = site.liveSettings ?? site.settings;
  return { ...makeSite(site.key, settings, nodes), live: site.live, liveSettings: site.liveSettings, isLiveTree: true };
}

/** The same tree with the live settings of now. */
const withSettingsOf = (live: Site, site: Site): Site => ({
  ...live,
  settings: site.liveSettings ?? site.settings,
  live: site.live,
  liveSettings: site.liveSettings,
});

/** The live site made of that of an earlier state; null where there is none, or where too much has changed since. */
function fromBefore(site: Site): Site | null {
  const changed = new Set<PageId>();
  let at = site.live;
  for (let steps = 0; steps < MAX_STEPS; steps++) {
    const step = liveStepTo(at);
    if (!step) return null;
    for (const id of step.changed) changed.add(id);
    if (changed.size > MAX_CHANGED) return null;
    at = step.before;
    const before = known.get(at);
    if (!before) continue;
    if (before.key !== site.key) return null;
    const live = withSettingsOf(withChanged(before, site, changed), site);
    noteStep(live, before, [...changed]);
    return live;
  }
  return null;
}

function withChanged(before: Site, site: Site, changed: ReadonlySet<PageId>): Site {
  const put: SiteNode[] = [];
  const gone: PageId[] = [];
  for (const id of changed) {
    const entry = site.live.get(id);
    const was = before.nodes.get(id);
    if (entry && !entry.retired) put.push(entry.node);
    else if (was) {
      gone.push(id);
      put.push({ ...was, removedWith: id });
    }
  }
  const after = withNodes(before, put);
  return gone.length === 0 ? after : { ...after, nodes: after.nodes.deleteAll(gone) };
}
