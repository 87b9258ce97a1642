import type { Touched, Through } from '#core/derive/touched.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Marks } from '../workbench/workbench-context.tsx';

/** Why a setting touches a page, as it stands in the page's row. */
function throughWords(site: Site, through: Through): string {
  if (through === 'itself') return 'by itself';
  if (through === 'site') return 'as all pages';
  if (through === 'everyone') return 'open to everyone';
  return `through ‘${textIn(maybeNodeAt(site, through)?.title ?? {}, site.settings.language)}’`;
}

/** The rows of all pages that something touches, each with the reason; what everyone has anyway stands back. */
export function marksOfTouched(site: Site, name: string, touched: Touched): Marks {
  const known = new Map<Through, string>();
  const words = new Map<PageId, string>();
  for (const [page, through] of touched) {
    let said = known.get(through);
    if (said === undefined) known.set(through, (said = throughWords(site, through)));
    words.set(page, said);
  }
  return { name: `‘${name}’`, words, isFaint: (page) => touched.get(page) === 'everyone' };
}
