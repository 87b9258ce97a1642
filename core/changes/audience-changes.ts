import { accessTable, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import { type AudienceId, EVERYONE } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';

/** Which pages visitors of one audience gain and lose by a change. */
export interface AudienceChange {
  readonly audience: AudienceId;
  readonly gains: readonly PageId[];
  readonly loses: readonly PageId[];
  /** Links of the tree that they see, and that lead to a page which is closed to them from then on. */
  readonly deadLinks: readonly PageId[];
}

/**
 * Who gains and loses pages pages between two drafts of one site, at a moment; audiences for which nothing differs are left
 * out. Pages are counted that have an address; those that come or go with the change are not lost or gained by a rule.
 */
export function audienceChanges(before: Site, after: Site, at: number): AudienceChange[] {
  if (before === after) return [];
  const [was, is] = [derivedOf(before), derivedOf(after)];
  const ids = [EVERYONE, ...after.settings.audiences.map(({ id }) => id)];
  const bitBefore = new Map([EVERYONE, ...before.settings.audiences.map(({ id }) => id)].map((id, bit) => [id, bit]));
  const old = accessTable(was.outline, before.settings, membershipsOf(before.settings.audiences), at);
  const now = accessTable(is.outline, after.settings, membershipsOf(after.settings.audiences), at);
  const changes = ids.map((audience) => ({
    audience,
    gains: [] as PageId[],
    loses: [] as PageId[],
    deadLinks: [] as PageId[],
  }));
  const isSameShape = was.outline.rowOf === is.outline.rowOf;
  const areSameAudiences = before.settings.audiences === after.settings.audiences;
  is.outline.nodes.forEach((node, row) => {
    if (is.outline.isPage[row] === 0) return;
    const rowBefore = isSameShape ? row : was.outline.rowOf.get(node.id);
    if (rowBefore === undefined || (areSameAudiences && old.open[rowBefore] === now.open[row])) return;
    changes.forEach(({ audience, gains, loses }, bit) => {
      const place = bitBefore.get(audience);
      if (place === undefined) return;
      const could = (old.open[rowBefore]! >>> place) & 1;
      const can = (now.open[row]! >>> bit) & 1;
      if (can > could) gains.push(node.id);
      else if (can < could) loses.push(node.id);
    });
  });
  for (const row of is.outline.aliases) {
    const { id, target } = is.outline.nodes[row]!;
    if (!target || !('page' in target)) continue;
    const [from, to] = [was.outline.rowOf.get(target.page), is.outline.rowOf.get(target.page)];
    if (from === undefined || to === undefined) continue;
    changes.forEach(({ audience, deadLinks }, bit) => {
      const place = bitBefore.get(audience);
      const isOpen = (bits: Uint32Array, at: number, of: number) => ((bits[at]! >>> of) & 1) === 1;
      if (
        place !== undefined &&
        isOpen(now.open, row, bit) &&
        isOpen(old.open, from, place) &&
        !isOpen(now.open, to, bit)
      )
        deadLinks.push(id);
    });
  }
  return changes.filter(({ gains, loses }) => gains.length + loses.length > 0);
}
