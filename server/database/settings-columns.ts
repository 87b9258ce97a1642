import type { Audience } from '#core/model/audience.ts';
import type { Fact } from '#core/model/fact.ts';
import type { Language, PageId } from '#core/model/ids.ts';
import type { Layout } from '#core/model/layout.ts';
import { FIRST_LOOK, type Look } from '#core/model/look.ts';
import type { Menu } from '#core/model/menu.ts';
import type { PageLabel } from '#core/model/page-label.ts';
import type { Redirect } from '#core/model/redirect.ts';
import type { SharedSection } from '#core/model/shared-section.ts';
import type { SiteForm } from '#core/model/site-form.ts';
import type { Settings } from '#core/model/site.ts';
import { PLAIN_TRAIL, type TrailSetting } from '#core/model/trail-setting.ts';

/** The columns of `site` that hold settings as JSON; `live_` before the name has what visitors have. */
export const JSON_SETTINGS = [
  'audiences',
  'labels',
  'menus',
  'layouts',
  'facts',
  'shared',
  'forms',
  'hosts',
  'look',
  'redirects',
  'trail',
] as const;

/** The settings of a site as the table `site` has them: drafted, and live where something is. */
export interface SettingsRow {
  name: string;
  language: Language;
  home: PageId | null;
  audiences: Audience[];
  labels: PageLabel[];
  menus: Menu[];
  layouts: Layout[];
  facts: Fact[];
  shared: SharedSection[];
  forms: SiteForm[];
  hosts: string[];
  /** Null until somebody decides. */
  look: Look | null;
  redirects: Redirect[];
  trail: TrailSetting;
  time_zone: string;
  live_name: string | null;
  live_language: Language | null;
  live_home: PageId | null;
  live_audiences: Audience[];
  live_labels: PageLabel[];
  live_menus: Menu[];
  live_layouts: Layout[];
  live_facts: Fact[];
  live_shared: SharedSection[];
  live_forms: SiteForm[];
  live_hosts: string[];
  live_look: Look | null;
  live_redirects: Redirect[];
  live_trail: TrailSetting | null;
  live_time_zone: string | null;
}

export const settingsOf = (row: SettingsRow): Settings => ({
  name: row.name,
  language: row.language,
  home: row.home,
  audiences: row.audiences,
  labels: row.labels,
  menus: row.menus,
  layouts: row.layouts,
  facts: row.facts,
  shared: row.shared,
  forms: row.forms,
  look: lookOf(row.look),
  hosts: row.hosts,
  redirects: row.redirects,
  trail: row.trail,
  timeZone: row.time_zone,
});

/** Null where nothing was ever live. */
export const liveSettingsOf = (row: SettingsRow): Settings | null =>
  row.live_name === null || row.live_language === null
    ? null
    : {
        name: row.live_name,
        language: row.live_language,
        home: row.live_home,
        audiences: row.live_audiences,
        labels: row.live_labels,
        menus: row.live_menus,
        layouts: row.live_layouts,
        facts: row.live_facts,
        shared: row.live_shared,
        forms: row.live_forms,
        look: lookOf(row.live_look),
        hosts: row.live_hosts,
        redirects: row.live_redirects,
        trail: row.live_trail ?? PLAIN_TRAIL,
        timeZone: row.live_time_zone ?? 'UTC',
      };

/** The columns that hold settings as they are, with the name of each. */
const PLAIN_SETTINGS = [
  ['name', 'name'],
  ['language', 'language'],
  ['home', 'home'],
  ['time_zone', 'timeZone'],
] as const;

/** The columns that differ between two settings, with their values; lists as JSON. `before` null gives all. */
export function changedSettings(before: Settings | null, after: Settings): [column: string, value: string | null][] {
  const changed: [string, string | null][] = [];
  for (const [column, setting] of PLAIN_SETTINGS)
    if (before?.[setting] !== after[setting]) changed.push([column, after[setting]]);
  for (const column of JSON_SETTINGS)
    if (before?.[column] !== after[column]) changed.push([column, JSON.stringify(after[column])]);
  return changed;
}

/** The columns of what was never live. */
export const NEVER_LIVE: readonly [column: string, value: string | null][] = [
  ...PLAIN_SETTINGS.map(([column]): [string, string | null] => [column, null]),
  ...JSON_SETTINGS.map((column): [string, string | null] => [
    column,
    column === 'trail' || column === 'look' ? null : '[]',
  ]),
];

/** A look of before something was added to looks says nothing of it. */
const lookOf = (kept: Partial<Look> | null): Look => (kept === null ? FIRST_LOOK : { ...FIRST_LOOK, ...kept });
