import type { Knex } from 'knex';
import { type Membership, seesSection } from '#core/derive/access.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { RedirectSources } from '#core/derive/redirects.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { withLive } from '#core/model/site-edit.ts';
import { type LiveNode, type Settings, type Site, makeSite, newSettings } from '#core/model/site.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { Works } from '#contract/releases.ts';
import { type DraftRow, type LiveRow, fromDraftRow, fromLiveRow } from '../database/node-rows.ts';
import { withFacts } from './facts.ts';
import { withAnchors } from './heading-anchors.ts';
import { type SettingsRow, liveSettingsOf, settingsOf } from '../database/settings-columns.ts';

export interface Release {
  readonly site: Site;
  /** What visitors read while the site is closed for works; null while it is open. */
  readonly works: Works | null;
  /** When each node last went live, by id. */
  readonly liveAt: ReadonlyMap<string, Date>;
  /** The same with the pages that were taken down, in which addresses that no page has are looked up. */
  readonly whole: Site;
  readonly sources: RedirectSources;
}

/** What visitors have of a site, read at one moment; undefined where there is no such site or nothing was ever live. */
export async function loadRelease(database: Knex, key: SiteKey): Promise<Release | undefined> {
  return database.transaction(
    async (trx) => {
      const row = await trx<SettingsRow & { key: string; works: Works | null }>('site').where({ key }).first();
      const settings = row && liveSettingsOf(row);
      if (!settings) return undefined;
      const rows = (await trx('live_node').where({ site: key })) as (LiveRow & { live_at: Date })[];
      const whole = makeSite(key, settings, [], rows.map(fromLiveRow), settings);
      const ofOldSite = await trx('live_redirect').where({ site: key }).select('path', 'page');
      const former = await trx('former_address').where({ site: key }).select('path', 'page');
      return {
        whole,
        works: row.works,
        site: liveSiteOf(whole),
        sources: {
          former: new Map(former.map((one): [string, PageId] => [one.path, one.page])),
          ofOldSite: new Map(ofOldSite.map((one): [string, PageId | null] => [one.path, one.page])),
        },
        liveAt: new Map(rows.map((one) => [one.id, one.live_at])),
      };
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/** What visitors had of a site right after a release, from the ways back of those since. @param whole what they have now */
export async function releasedAt(database: Knex, whole: Site, release: number): Promise<Site> {
  const rows: { inverse: { before: Readonly<Record<PageId, LiveNode | null>>; settings: Settings | null }[] }[] =
    await database('release')
      .join('edit_log', (join) =>
        join.on('edit_log.site', 'release.site').andOn('edit_log.revision', 'release.revision'),
      )
      .where('release.site', whole.key)
      .andWhere('number', '>', release)
      .orderBy('number', 'desc')
      .select('inverse');
  let site = whole;
  for (const { inverse } of rows) {
    for (const { before, settings } of inverse) {
      const complete = settings && { ...newSettings(settings.name, settings.language), ...settings };
      site = withLive(site, new Map(Object.entries(before) as [PageId, LiveNode | null][]), complete);
    }
  }
  return liveSiteOf(site);
}

/** The draft of a site, for walks; undefined where there is no such site. */
export async function loadDraft(database: Knex, key: SiteKey): Promise<Site | undefined> {
  const row = await database<SettingsRow & { key: string }>('site').where({ key }).first();
  if (!row) return undefined;
  const rows = (await database('node').where({ site: key, removed_with: null })) as DraftRow[];
  return makeSite(key, settingsOf(row), rows.map(fromDraftRow));
}

/** A text as HTML, with the sections that the visitor may see, and the site's facts where it names them. */
export async function htmlOf(
  database: Knex,
  { key, settings }: Pick<Site, 'key' | 'settings'>,
  content: string,
  visitor: Membership,
): Promise<string> {
  const row = await database('content')
    .where({ site: key, id: content })
    .first<{ html: string; parts: readonly RenderedPart[] | null } | undefined>('html', 'parts');
  const html = row?.parts
    ? row.parts
        .filter((part) => seesSection(part, visitor, settings))
        .map((part) => part.html)
        .join('')
    : (row?.html ?? '');
  return withFacts(withAnchors(html), settings.facts);
}

/** The keys of the sites that have something live. */
export const liveSiteKeys = (database: Knex): Promise<SiteKey[]> =>
  database('site').whereNotNull('live_name').orderBy('key').pluck('key');

/** The texts of everyone as HTML, by their ids, with the site's facts where they name them. */
export async function htmlOfAll(
  database: Knex,
  { key, settings }: Pick<Site, 'key' | 'settings'>,
  contents: readonly string[],
): Promise<Map<string, string>> {
  const rows: { id: string; html: string }[] = await database('content')
    .where({ site: key })
    .whereIn('id', [...contents])
    .select('id', 'html');
  return new Map(rows.map(({ id, html }) => [id, withFacts(withAnchors(html), settings.facts)]));
}
