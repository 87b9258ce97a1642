import type { z } from 'zod';
import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { menuTableOf } from '#core/derive/menu-table.ts';
import { rowOf } from '#core/derive/outline.ts';
import { differencesOf } from '#core/derive/state.ts';
import { trailOf } from '#core/derive/trail.ts';
import type { PageId } from '#core/model/ids.ts';
import { entryOf } from '#core/model/menu.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { pageAnswer } from '#contract/api.ts';
import { ProblemError } from '../problem.ts';
import type { LoadedSite } from './site-repository.ts';

/** Everything about one page, with the reason of each derived answer. */
export function describePage({ site, revision }: LoadedSite, page: PageId): z.infer<typeof pageAnswer> {
  const node = maybeNodeAt(site, page);
  if (!node) throw new ProblemError(site.nodes.has(page) ? 'page-removed' : 'page-unknown', { page });
  const derived = derivedOf(site);
  const row = rowOf(derived.outline, page);
  const hiddenBy = derived.hiddenBy[row]!;
  const live = derivedOf(liveSiteOf(site));
  const liveRow = live.outline.rowOf.get(page);
  return {
    page,
    revision,
    title: textIn(node.title, site.settings.language),
    type: node.type,
    address: derived.addresses[row]!,
    trail: trailOf(site, page),
    hidden: { isHidden: hiddenBy !== -1, because: hiddenBy === -1 ? null : derived.outline.nodes[hiddenBy]!.id },
    menus: site.settings.menus.map((menu) => {
      const { numbers, answerAt } = menuTableOf(site, menu);
      return { menu: menu.id, name: menu.name, number: numbers.get(entryOf(page)) ?? null, because: answerAt(row) };
    }),
    state: derived.states[row]!,
    differences: differencesOf(site, page),
    liveAddress: liveRow === undefined ? null : live.addresses[liveRow]!,
  };
}
