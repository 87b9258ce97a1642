import { z } from 'zod';
import { canonicalJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import { withLive } from '../model/site-edit.ts';
import { type LiveNode, type Settings, newSettings } from '../model/site.ts';
import { defineOperation } from './definition.ts';

export const releaseTakeBackSchema = z.strictObject({
  name: z.literal('release.takeBack'),
  before: z.custom<Readonly<Record<PageId, LiveNode | null>>>((value) => typeof value === 'object' && value !== null),
  settings: z.custom<(Pick<Settings, 'name' | 'language' | 'home'> & Partial<Settings>) | null>(
    (value) => typeof value === 'object',
  ),
});

/**
 * Gives pages the live states that they had, and the site the settings that visitors had: the inverse of `release.make`, and
 * what a release is that takes back another one. Made by Spur only, never taken from a request.
 */
export const releaseTakeBack = defineOperation({
  schema: releaseTakeBackSchema,

  apply(site, { before, settings: kept }) {
    // Logs that are older than audiences, labels, menus, layouts or redirects have none in their settings.
    const given: Settings | null = kept && { ...newSettings(kept.name, kept.language), ...kept };
    const was = site.liveSettings;
    const settings = was && canonicalJson(given) === canonicalJson(was) ? was : given;
    const changed = new Map(Object.entries(before) as [PageId, LiveNode | null][]);
    const now: Record<PageId, LiveNode | null> = {};
    for (const page of changed.keys()) now[page] = site.live.get(page) ?? null;
    const next = withLive(site, changed, settings);
    if (next === site) return { ok: true, site, inverse: [], touched: [] };
    return {
      ok: true,
      site: next,
      inverse: [{ name: 'release.takeBack', before: now, settings: site.liveSettings }],
      touched: [...changed.keys()],
    };
  },

  cells: ({ before }) => Object.keys(before).map((page) => `${page}.live`),

  words: ({ before }) => {
    const count = Object.keys(before).length;
    return `took back what a release did to ${count === 1 ? '1 page' : `${count} pages`}`;
  },
});
