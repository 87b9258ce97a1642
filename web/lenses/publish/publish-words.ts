import type { SettingsItems } from '#core/changes/settings-items.ts';
import type { PageId } from '#core/model/ids.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

export const SETTINGS_WORDS: Readonly<Record<SettingsPart, string>> = {
  name: 'name of the site',
  language: 'language',
  audiences: 'audiences',
  labels: 'labels',
  menus: 'menus',
  layouts: 'layouts',
  trail: 'trails',
  facts: 'facts',
  shared: 'shared sections',
  forms: 'forms',
  look: 'look',
  hosts: 'hosts of outside frames',
  redirects: 'redirects',
  timeZone: 'time zone',
};

export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What differs in a part of the settings, as clauses. */
export function itemsWords(items: SettingsItems): string[] {
  if (items.kind === 'whole') return ['They look different.'];
  if (items.kind === 'value') return [`‘${items.before}’ becomes ‘${items.after}’.`];
  const clause = (names: readonly string[], words: string) =>
    names.length > 0 ? [`${words}: ${names.join(', ')}`] : [];
  return [
    ...clause(items.came, 'New'),
    ...clause(items.changed, 'Changed'),
    ...clause(items.went, 'Removed'),
    ...(items.came.length + items.changed.length + items.went.length === 0 ? ['In another order'] : []),
  ];
}

/** What a page is called, one that was removed from the tree too. */
export function titleIn(site: Site, page: PageId): string {
  const node = site.nodes.get(page) ?? site.live.get(page)?.node;
  return node ? textIn(node.title, site.settings.language) : page;
}
