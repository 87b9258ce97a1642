import { type Site, makeSite } from '../model/site.ts';

const known = new WeakMap<object, Site>();

/** The site as visitors have it: the live states of the nodes that are not retired, as a tree of their own. */
export function liveSiteOf(site: Site): Site {
  const before = known.get(site.live);
  const settings = site.liveSettings ?? site.settings;
  if (before && before.settings === settings && before.key === site.key) return before;
  const nodes = [];
  for (const entry of site.live.values()) {
    if (!entry.retired) nodes.push(entry.node);
  }
  const live: Site = { ...makeSite(site.key, settings, nodes), live: site.live, liveSettings: site.liveSettings };
  known.set(site.live, live);
  return live;
}
