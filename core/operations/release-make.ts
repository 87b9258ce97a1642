import { z } from 'zod';
import { pageIdSchema, type PageId } from '../model/ids.ts';
import { isSameNode, asLive } from '../model/node.ts';
import { leadsToByPageSchema } from '../model/redirect.ts';
import { refuse } from '../model/refusal.ts';
import { SETTINGS_PARTS, type SettingsPart, withParts } from '../model/settings-parts.ts';
import { withLive } from '../model/site-edit.ts';
import { type LiveNode, type Settings, type Site, homeOf } from '../model/site.ts';
import { checkStands } from './checks.ts';
import { defineOperation } from './definition.ts';

export const releaseMakeSchema = z.strictObject({
  name: z.literal('release.make'),
  pages: z.array(pageIdSchema).max(200_000),
  retire: z.array(pageIdSchema).max(200_000),
  /** What of the settings goes along; all of it where this is left out, and with the first release. */
  settings: z.array(z.enum(SETTINGS_PARTS)).optional(),
  /** Where the addresses of pages lead that are taken down; to the page above where one is not named. */
  leadsTo: leadsToByPageSchema.optional(),
});

/**
 * Makes pages live as they are drafted, and takes others down. What must come along is for `planRelease` to say;
 * the operation itself refuses only what would leave a live page without its live parent.
 */
export const releaseMake = defineOperation({
  schema: releaseMakeSchema,

  apply(site, { pages, retire, settings: parts, leadsTo = {} }) {
    const changed = new Map<PageId, LiveNode>();
    for (const page of pages) {
      const forbidden = checkStands(site, page);
      if (forbidden) return forbidden;
      const node = asLive(site.nodes.get(page)!);
      const was = site.live.get(page);
      if (!was || was.retired || !isSameNode(was.node, node)) changed.set(page, { node, retired: false });
    }
    for (const page of retire) {
      const was = site.live.get(page);
      if (!was || was.retired) return refuse('not-live', { page });
      const to = leadsTo[page];
      changed.set(page, { node: was.node, retired: true, ...(to !== undefined && { leadsTo: to }) });
    }
    const isLive = (page: PageId) => {
      const entry = changed.get(page) ?? site.live.get(page);
      return entry !== undefined && !entry.retired;
    };
    for (const [page, entry] of changed) {
      const parent = entry.node.parent;
      if (!entry.retired && parent !== null && !isLive(parent)) return refuse('parent-not-live', { page, parent });
    }
    const gone = new Set(retire);
    const orphan =
      gone.size === 0
        ? undefined
        : site.live.find(
            ({ node, retired }, id) =>
              !retired && isLive(id) && gone.has((changed.get(id)?.node ?? node).parent ?? ('' as PageId)),
          );
    if (orphan) return refuse('parent-not-live', { page: orphan.node.id, parent: orphan.node.parent! });
    const was = site.liveSettings;
    const next = withLive(site, changed, settingsAfter(site, parts));
    if (next === site) return { ok: true, site, inverse: [], touched: [] };
    const before: Record<PageId, LiveNode | null> = {};
    for (const page of changed.keys()) before[page] = site.live.get(page) ?? null;
    return {
      ok: true,
      site: next,
      inverse: [{ name: 'release.takeBack', before, settings: was }],
      touched: [...changed.keys()],
    };
  },

  cells: ({ pages, retire, settings = SETTINGS_PARTS }) => [
    ...[...pages, ...retire].map((page) => `${page}.live`),
    ...settings.map((part) => `site.live.${part}`),
  ],

  words({ pages, retire }) {
    const parts: string[] = [];
    const count = (n: number) => (n === 1 ? '1 page' : `${n} pages`);
    if (pages.length > 0) parts.push(`made ${count(pages.length)} live`);
    if (retire.length > 0) parts.push(`took ${count(retire.length)} down`);
    return parts.join(' and ') || 'made settings of the site live';
  },
});

/** The settings that visitors have after a release of some parts of them. */
function settingsAfter(site: Site, parts: readonly SettingsPart[] = SETTINGS_PARTS): Settings {
  const { settings, liveSettings } = site;
  const home = homeOf(site);
  if (liveSettings === null) return { ...settings, home };
  const next = withParts(liveSettings, parts, settings);
  return next.home === home ? next : { ...next, home };
}
