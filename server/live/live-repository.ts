import type { Knex } from 'knex';
import { type Membership, NOBODY_KNOWN, seesSection } from '#core/derive/access.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { type RedirectSources, addressesLeft } from '#core/derive/redirects.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { withLive } from '#core/model/site-edit.ts';
import { type LiveNode, type Settings, type Site, makeSite, newSettings } from '#core/model/site.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { Works } from '#contract/releases.ts';
import { readDraft, readLive } from '../database/node-repository.ts';
import { type LiveRow, fromLiveRow } from '../database/node-rows.ts';
import { withFacts } from './facts.ts';
import type { FileId } from '#core/files/file.ts';
import { filesByContent, liveFiles, oldFiles } from './live-file-repository.ts';
import type { LiveFiles } from './live-files.ts';
import { withAnchors } from './heading-anchors.ts';
import { sharedNamed, withShared } from './shared-sections.ts';
import { type SettingsRow, liveSettingsOf, settingsOf } from '../database/settings-columns.ts';
import { oneOf } from '../database/one-of.ts';

export interface Release {
  /** Its number, counted from the site's first one. */
  readonly number: number;
  readonly site: Site;
  /** What visitors will read while the site is closed for works; null while it is open. */
  readonly works: Works | null;
  /** When each node last went live, by id. */
  readonly liveAt: ReadonlyMap<string, Date>;
  /** The same with the pages that were taken down, in which addresses that no page has are looked up. */
  readonly whole: Site;
  readonly sources: RedirectSources;
  /** The files of the library as they are now: they change without a release too. */
  readonly files: LiveFiles;
  /** The same by the contents that they have and had. */
  readonly filesByContent: ReadonlyMap<string, FileId>;
  /** The files that addresses of the old site lead to, by path and query. */
  readonly oldFiles: ReadonlyMap<string, FileId>;
}

type LiveSiteRow = SettingsRow & { key: string; works: Works | null; release: number };
type Reading<Result> = (trx: Knex.Transaction, row: LiveSiteRow, settings: Settings) => Promise<Result>;

/** Reads of a site at one moment; undefined where there is no such site or nothing was ever live. */
const atOneMoment = <Result>(database: Knex, key: SiteKey, read: Reading<Result>): Promise<Result | undefined> =>
  database.transaction(
    async (trx) => {
      const row = await trx<LiveSiteRow>('site').where({ key }).first();
      const settings = row && liveSettingsOf(row);
      return settings ? read(trx, row, settings) : undefined;
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );

/** What visitors have of a site; undefined where there is no such site or nothing was ever live. */
export const loadRelease = (database: Knex, key: SiteKey): Promise<Release | undefined> =>
  atOneMoment(database, key, readWhole);

/** The same, made of what visitors had: where one release came since, only what it changed is read. */
export const loadReleaseAfter = (database: Knex, before: Release): Promise<Release | undefined> =>
  atOneMoment(database, before.site.key, (trx, row, settings) =>
    Number(row.release) - before.number > 1 ? readWhole(trx, row, settings) : readChanged(trx, row, settings, before),
  );

async function readWhole(trx: Knex.Transaction, row: LiveSiteRow, settings: Settings): Promise<Release> {
  const { key } = row;
  const { live, liveAt } = await readLive(trx, key as SiteKey);
  const whole = makeSite(key as SiteKey, settings, [], live, settings);
  const former = await trx('former_address').where({ site: key }).select('path', 'page');
  return {
    number: Number(row.release),
    whole,
    works: row.works,
    site: liveSiteOf(whole),
    sources: {
      former: new Map(former.map((one): [string, PageId] => [one.path, one.page])),
      ofOldSite: await redirectsOfOldSite(trx, key),
    },
    liveAt,
    files: await liveFiles(trx, key as SiteKey),
    filesByContent: await filesByContent(trx, key as SiteKey),
    oldFiles: await oldFiles(trx, key as SiteKey),
  };
}

async function readChanged(
  trx: Knex.Transaction,
  row: LiveSiteRow,
  settings: Settings,
  before: Release,
): Promise<Release> {
  const { key } = row;
  const number = Number(row.release);
  const changed = new Map<PageId, LiveNode | null>();
  const liveAt = new Map(before.liveAt);
  if (number > before.number) {
    for (const { inverse } of await waysBack(trx, key, before.number))
      for (const step of inverse) for (const id of Object.keys(step.before) as PageId[]) changed.set(id, null);
    const rows = (await trx('live_node').where({ site: key }).where(oneOf('id', changed.keys()))) as (LiveRow & {
      live_at: Date;
    })[];
    for (const one of rows) {
      changed.set(one.id, fromLiveRow(one));
      liveAt.set(one.id, one.live_at);
    }
  }
  const whole = { ...withLive(before.whole, changed, settings), settings };
  const former = new Map(before.sources.former);
  for (const [path, page] of addressesLeft(before.whole, whole)) former.set(path, page);
  return {
    number,
    whole,
    works: row.works,
    site: liveSiteOf(whole),
    sources: { former, ofOldSite: await redirectsOfOldSite(trx, key) },
    liveAt,
    files: await liveFiles(trx, key as SiteKey),
    filesByContent: await filesByContent(trx, key as SiteKey),
    oldFiles: await oldFiles(trx, key as SiteKey),
  };
}

async function redirectsOfOldSite(trx: Knex, key: string): Promise<Map<string, PageId | null>> {
  const rows = await trx('live_redirect').where({ site: key }).select('path', 'page');
  return new Map(rows.map((one): [string, PageId | null] => [one.path, one.page]));
}

/** The ways back of the releases since one, the latest first. */
const waysBack = (
  database: Knex,
  site: string,
  since: number,
): Promise<{ inverse: { before: Readonly<Record<PageId, LiveNode | null>>; settings: Settings | null }[] }[]> =>
  database('release')
    .join('edit_log', (join) => join.on('edit_log.site', 'release.site').andOn('edit_log.revision', 'release.revision'))
    .where('release.site', site)
    .andWhere('number', '>', since)
    .orderBy('number', 'desc')
    .select('inverse');

/** What visitors had of a site right after a release, from the ways back of those since. @param whole what they have now */
export async function releasedAt(database: Knex, whole: Site, release: number): Promise<Site> {
  let site = whole;
  for (const { inverse } of await waysBack(database, whole.key, release)) {
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
  const nodes = await readDraft(database, key);
  return makeSite(
    key,
    settingsOf(row),
    nodes.filter(({ removedWith }) => removedWith === null),
  );
}

/** A text as HTML, with the sections that the visitor may see, and the site's facts where it names them. */
export const htmlOf = async (
  database: Knex,
  site: Pick<Site, 'key' | 'settings'>,
  content: string,
  visitor: Membership,
): Promise<string> => (await htmlOfAll(database, site, [content], visitor)).get(content) ?? '';

/** Texts as HTML in the same way, by their ids. */
export async function htmlOfAll(
  database: Knex,
  { key, settings }: Pick<Site, 'key' | 'settings'>,
  contents: readonly string[],
  visitor: Membership = NOBODY_KNOWN,
): Promise<Map<string, string>> {
  const read = async (ids: readonly string[]): Promise<Map<string, string>> => {
    const rows: { id: string; html: string; parts: readonly RenderedPart[] | null }[] =
      ids.length === 0
        ? []
        : await database('content').where({ site: key }).where(oneOf('id', ids)).select('id', 'html', 'parts');
    return new Map(
      rows.map(({ id, html, parts }) => {
        const seen = parts?.filter((part) => seesSection(part, visitor, settings)).map((part) => part.html);
        return [id, withoutEmpty(seen ? seen.join('') : html)];
      }),
    );
  };
  const texts = await read(contents);
  const named = new Set([...texts.values()].flatMap(sharedNamed));
  const shown = settings.shared.filter(({ id }) => named.has(id));
  const ofShared = await read(shown.flatMap(({ content }) => content ?? []));
  const shared = new Map(shown.map(({ id, content }): [string, string] => [id, ofShared.get(content ?? '') ?? '']));
  return new Map(
    [...texts].map(([id, html]) => [id, withFacts(withShared(withAnchors(html), shared), settings.facts)]),
  );
}

/** Paragraphs with nothing in them are how an editor makes room; a page has its own. */
const withoutEmpty = (html: string): string => html.replaceAll('<p></p>', '');

/** The keys of the sites that have something live. */
export const liveSiteKeys = (database: Knex): Promise<SiteKey[]> =>
  database('site').whereNull('deleted_at').whereNotNull('live_name').orderBy('key').pluck('key');
