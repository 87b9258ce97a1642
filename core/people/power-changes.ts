import { outlineOf } from '../derive/outline.ts';
import type { PageId } from '../model/ids.ts';
import type { PermissionSet } from '../model/permission.ts';
import type { Site } from '../model/site.ts';
import { type Powers, powersTable } from './powers.ts';

/** What somebody may do more, or less, at a page after an edit. */
export interface PowerChange {
  readonly page: PageId;
  readonly gained: PermissionSet;
  readonly lost: PermissionSet;
}

/**
 * The pages at which an edit changes what somebody may do, in tree order: those that it moved into a branch where they have a
 * role, or out of one, or where one practises. Pages that stand in one of the two trees only are left out.
 */
export function powerChanges(before: Site, after: Site, powers: Powers): PowerChange[] {
  const isSame = before.children === after.children && before.practice === after.practice;
  const isEven = powers.onBranches.size === 0 && before.practice === null && after.practice === null;
  if (isSame || isEven) return [];
  const [was, is] = [outlineOf(before), outlineOf(after)];
  const [wasHeld, isHeld] = [
    powersTable(was, powers, before.practice).permissions,
    powersTable(is, powers, after.practice).permissions,
  ];
  const changes: PowerChange[] = [];
  for (const [row, { id }] of is.nodes.entries()) {
    const rowBefore = was.rowOf.get(id);
    if (rowBefore === undefined) continue;
    const [held, now] = [wasHeld[rowBefore]!, isHeld[row]!];
    if (held !== now) changes.push({ page: id, gained: now & ~held, lost: held & ~now });
  }
  return changes;
}
