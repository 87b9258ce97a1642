import type { Touched, Through } from '#core/derive/touched.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

/** Why a setting touches a page, as it stands in the page's row. */
function throughWords(site: Site, through: Through): string {
  if (through === 'itself') return 'by itself';
  if (through === 'site') return 'as all pages';
  return `through ‘${textIn(maybeNodeAt(site, through)?.title ?? {}, site.settings.language)}’`;
}

/** The reasons of all pages that something touches. */
export function wordsOfTouched(site: Site, touched: Touched): ReadonlyMap<PageId, string> {
  const known = new Map<Through, string>();
  const words = new Map<PageId, string>();
  for (const [page, through] of touched) {
    let said = known.get(through);
    if (said === undefined) known.set(through, (said = throughWords(site, through)));
    words.set(page, said);
  }
  return words;
}
