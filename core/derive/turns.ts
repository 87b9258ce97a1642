import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { accessTable, membershipsOf } from './access.ts';
import { derivedOf } from './derived.ts';

/** A moment at which the clock opens pages or closes some, for whoever may open them otherwise. */
export interface Turn {
  /** In milliseconds since 1970. */
  readonly at: number;
  /** The pages that open or close for anybody then, in tree order. */
  readonly opens: readonly PageId[];
  readonly closes: readonly PageId[];
}

/** What the clock will turn after one moment and until another, the next first; at most `most` turns, those without effect left out. */
export function turnsAhead(site: Site, from: number, until: number, most = 50): Turn[] {
  const { outline } = derivedOf(site);
  const memberships = membershipsOf(site.settings.audiences);
  const turns: Turn[] = [];
  let before = accessTable(outline, site.settings, memberships, from);
  while (before.until <= until && turns.length < most) {
    const at = before.until;
    const after = accessTable(outline, site.settings, memberships, at);
    const opens: PageId[] = [];
    const closes: PageId[] = [];
    outline.nodes.forEach(({ id, type }, row) => {
      if (type !== 'page') return;
      if ((after.open[row]! & ~before.open[row]!) !== 0) opens.push(id);
      else if ((before.open[row]! & ~after.open[row]!) !== 0) closes.push(id);
    });
    if (opens.length + closes.length > 0) turns.push({ at, opens, closes });
    before = after;
  }
  return turns;
}
