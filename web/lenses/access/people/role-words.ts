import type { PageId } from '#core/model/ids.ts';
import { PERMISSION_WORDS, listOf } from '#core/model/permission.ts';
import type { Held, RoleAt } from '#core/people/powers.ts';
import { type Role, type RoleId, permissionsOf } from '#core/people/role.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

export const roleName = (roles: readonly Role[], id: RoleId): string =>
  roles.find((role) => role.id === id)?.name ?? 'a role that is not there';

/** A branch by its title. */
export const branchName = (site: Site, page: PageId): string => {
  const node = maybeNodeAt(site, page);
  return node ? `‘${textIn(node.title, site.settings.language)}’` : 'a branch that was removed';
};

/** A role at a page with its reason: "Writer, through ‘Courses’". */
export function heldWords(site: Site, { role }: Held, through: PageId | null, page: PageId): string {
  if (through === null) return `${role}, on the whole site`;
  return through === page ? `${role}, given here` : `${role}, through ${branchName(site, through)}`;
}

/** "Reader on the whole site, Writer in ‘Courses’". */
export const rolesWords = (site: Site, roles: readonly Role[], rolesAt: readonly RoleAt[]): string =>
  rolesAt
    .map(
      ({ page, role }) =>
        `${roleName(roles, role)} ${page === null ? 'on the whole site' : `in ${branchName(site, page)}`}`,
    )
    .join(', ');

/** What a role lets somebody do: "Read, Comment, Write". */
export function roleMay(role: Role): string {
  const names = listOf(permissionsOf(role)).map((permission) => PERMISSION_WORDS[permission].name);
  return names.includes(PERMISSION_WORDS.everything.name) ? PERMISSION_WORDS.everything.name : names.join(', ');
}
