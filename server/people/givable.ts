import type { Site } from '#core/model/site.ts';
import { mayGive } from '#core/people/forbidden.ts';
import type { Powers, RoleAt } from '#core/people/powers.ts';
import type { Role } from '#core/people/role.ts';
import { ProblemError } from '../problem.ts';

/**
 * Makes sure that somebody with these powers may give roles, or take them away.
 * @param roles all roles of the site
 * @throws ProblemError where a role is not of the site, a page is not in its tree, or the role may do more than who gives it
 */
export function requireGivable(site: Site, roles: readonly Role[], powers: Powers, rolesAt: readonly RoleAt[]): void {
  for (const { page, role: id } of rolesAt) {
    const role = roles.find((one) => one.id === id);
    if (!role) throw new ProblemError('role-unknown', { role: id });
    if (page !== null && !site.nodes.has(page)) throw new ProblemError('page-unknown', { page });
    if (!mayGive(site, powers, role, page)) throw new ProblemError('role-beyond-own', { name: role.name });
  }
}
