import type { Outline } from '../derive/outline.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { NO_PERMISSION, type Permission, type PermissionSet, has, setOf } from '../model/permission.ts';
import { isPractice } from '../model/practice.ts';
import { MANAGER, type Role, type RoleId, permissionsOf } from './role.ts';

/** A role that somebody has: on a branch, or on the whole site for `null`. */
export interface RoleAt {
  readonly page: PageId | null;
  readonly role: RoleId;
}

/** What a role gives where it holds. */
export interface Held {
  readonly role: string;
  readonly permissions: PermissionSet;
}

/** What one person may do on a site: the role on the whole site, and those on branches. The nearest above a page holds there. */
export interface Powers {
  readonly onSite: Held | null;
  readonly onBranches: ReadonlyMap<PageId, Held>;
}

const NO_BRANCHES: ReadonlyMap<PageId, Held> = new Map();
/** Somebody who may do everything. */
export const FULL_POWERS: Powers = {
  onSite: { role: MANAGER.name, permissions: permissionsOf(MANAGER) },
  onBranches: NO_BRANCHES,
};
/** Somebody whom the site does not know. */
export const NO_POWERS: Powers = { onSite: null, onBranches: NO_BRANCHES };

/** What roles come to. A role that the site does not have gives nothing. */
export function powersOf(roles: readonly Role[], rolesAt: readonly RoleAt[]): Powers {
  const byId = new Map(roles.map((role) => [role.id, { role: role.name, permissions: permissionsOf(role) }]));
  const onBranches = new Map<PageId, Held>();
  let onSite: Held | null = null;
  for (const { page, role } of rolesAt) {
    const held = byId.get(role) ?? { role: 'a role that is not there', permissions: NO_PERMISSION };
    if (page === null) onSite = held;
    else onBranches.set(page, held);
  }
  return { onSite, onBranches };
}

/** What is held at a page, and which page it is held through; `null` for the whole site. */
export interface HeldThere {
  readonly held: Held | null;
  readonly through: PageId | null;
}

/** In the practice branch, whoever writes anywhere may do all that concerns pages alone. */
const FOR_PRACTICE = setOf(['read', 'comment', 'plan', 'write', 'shape', 'menus']);

/** What is held at a page, whether it stands in the tree or was removed; for `null` on the whole site. */
export function heldAt(site: Site, powers: Powers, page: PageId | null): HeldThere {
  const there = heldByRole(site, powers, page);
  return page !== null && isPractice(site, page) && maySomewhere(powers, 'write') ? withPractice(there) : there;
}

function heldByRole(site: Site, { onSite, onBranches }: Powers, page: PageId | null): HeldThere {
  if (onBranches.size > 0)
    for (let at = page; at !== null; at = site.nodes.get(at)?.parent ?? null) {
      const held = onBranches.get(at);
      if (held) return { held, through: at };
    }
  return { held: onSite, through: null };
}

const withPractice = ({ held, through }: HeldThere): HeldThere => ({
  held: {
    role: held?.role ?? 'for practice',
    permissions: (held?.permissions ?? NO_PERMISSION) | FOR_PRACTICE,
  },
  through,
});

export const mayAt = (site: Site, powers: Powers, permission: Permission, page: PageId | null): boolean =>
  has(heldAt(site, powers, page).held?.permissions ?? NO_PERMISSION, permission);

/** Whether a permission is held anywhere. */
export const maySomewhere = ({ onSite, onBranches }: Powers, permission: Permission): boolean =>
  (onSite !== null && has(onSite.permissions, permission)) ||
  [...onBranches.values()].some(({ permissions }) => has(permissions, permission));

/** What is held at each row of the tree, and the row that it is held through; -1 for the whole site. */
export interface PowersTable {
  readonly permissions: Uint16Array;
  readonly through: Int32Array;
}

/** What is held at all rows, in one pass. @param practice the practice page, or null where there is none */
export function powersTable(
  outline: Pick<Outline, 'parent' | 'rowOf' | 'end'>,
  powers: Powers,
  practice: PageId | null,
): PowersTable {
  const table = tableByRoles(outline, powers);
  const first = practice === null ? undefined : outline.rowOf.get(practice);
  if (first !== undefined && maySomewhere(powers, 'write'))
    for (let row = first; row < outline.end[first]!; row++) table.permissions[row]! |= FOR_PRACTICE;
  return table;
}

function tableByRoles({ parent, rowOf }: Pick<Outline, 'parent' | 'rowOf'>, powers: Powers): PowersTable {
  const count = parent.length;
  const permissions = new Uint16Array(count);
  const through = new Int32Array(count).fill(-1);
  const { onSite, onBranches } = powers;
  const onAll = onSite?.permissions ?? NO_PERMISSION;
  if (onBranches.size === 0) return { permissions: permissions.fill(onAll), through };
  for (const [page, held] of onBranches) {
    const row = rowOf.get(page);
    if (row === undefined) continue;
    through[row] = row;
    permissions[row] = held.permissions;
  }
  for (let row = 0; row < count; row++) {
    if (through[row] === row) continue;
    const above = parent[row]!;
    permissions[row] = above === -1 ? onAll : permissions[above]!;
    through[row] = above === -1 ? -1 : through[above]!;
  }
  return { permissions, through };
}
