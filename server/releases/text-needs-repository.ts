import type { Knex } from 'knex';
import { type TextNeeds, freshIds } from '#core/changes/settings-along.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';

/** The pages of the draft whose texts show forms or shared sections that visitors do not have yet. */
export async function textNeeds(database: Knex, { key, settings, liveSettings }: Site): Promise<TextNeeds> {
  if (liveSettings === null) return {};
  const showing = (column: 'forms' | 'shared', ids: readonly string[]): Promise<PageId[]> =>
    ids.length === 0
      ? Promise.resolve([])
      : database('draft_text as t')
          .join('content', (join) => join.on('content.site', 't.site').andOn('content.id', 't.content'))
          .where('t.site', key)
          .whereRaw(`content.${column} && ?::text[] AND content.${column} <> '{}'`, [[...ids]])
          .distinct('t.page')
          .pluck('t.page');
  return {
    forms: await showing('forms', freshIds(liveSettings.forms, settings.forms)),
    shared: await showing('shared', freshIds(liveSettings.shared, settings.shared)),
  };
}
