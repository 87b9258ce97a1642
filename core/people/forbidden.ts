import type { PageId } from '../model/ids.ts';
import { ALL_PERMISSIONS, NO_PERMISSION, PERMISSION_WORDS, type Permission, hasAllOf } from '../model/permission.ts';
import { type Site, isWithin } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { type Need, needsOf } from './needs.ts';
import { type Powers, heldAt, mayAt } from './powers.ts';
import { type Role, permissionsOf } from './role.ts';

/** What somebody may not do: the permission that is missing, and where; `null` for the whole site. */
export interface Forbidden {
  readonly permission: Permission;
  readonly at: PageId | null;
  /** The site on which it was found out: an edit may have made the page itself. */
  readonly site: Site;
}

/** Whether somebody may do everything everywhere, so that nothing needs to be looked at. */
export const mayAll = ({ onSite, onBranches }: Powers): boolean =>
  onSite?.permissions === ALL_PERMISSIONS &&
  (onBranches.size === 0 || [...onBranches.values()].every(({ permissions }) => permissions === ALL_PERMISSIONS));

/**
 * The first thing in an edit that somebody may not do; null where they may do all of it, or an operation is refused
 * anyway. Each operation is looked at on the site that those before it make.
 * @param isOwnWayBack the edit undoes what the same person did: what it gives back besides needs no permission of its own
 */
export function forbiddenIn(
  site: Site,
  powers: Powers,
  operations: readonly Operation[],
  isOwnWayBack = false,
): Forbidden | null {
  if (mayAll(powers)) return null;
  let at = site;
  for (const [index, operation] of operations.entries()) {
    for (const need of needsOf(at, isOwnWayBack ? withoutFormerState(operation) : operation)) {
      const lacking = lackingAt(at, powers, need);
      if (lacking !== undefined) return { permission: need.permission, at: lacking, site: at };
    }
    if (index === operations.length - 1) break;
    const outcome = applyOperation(at, operation);
    if (!outcome.ok) return null;
    at = outcome.site;
  }
  return null;
}

/** An operation without what it gives back besides what it is about: slugs, and where a removed page stood. */
const withoutFormerState = (operation: Operation): Operation => ({
  ...operation,
  ...('restores' in operation && { restores: undefined }),
  ...('remember' in operation && { remember: undefined }),
});

/** Where what is needed is not held; undefined where it is. */
function lackingAt(site: Site, powers: Powers, { permission, at, isBranch }: Need): PageId | null | undefined {
  if (!mayAt(site, powers, permission, at)) return at;
  if (!isBranch || at === null) return undefined;
  // Below, only a branch with a role of its own can have less.
  for (const page of powers.onBranches.keys())
    if (isWithin(site, page, at) && !mayAt(site, powers, permission, page)) return page;
  return undefined;
}

/** Whether somebody may give a role, or take it away: nobody hands out what they do not have there themselves. */
export const mayGive = (site: Site, powers: Powers, role: Role, page: PageId | null): boolean =>
  mayAt(site, powers, 'people', page) &&
  hasAllOf(heldAt(site, powers, page).held?.permissions ?? NO_PERMISSION, permissionsOf(role));

/** Why somebody may not do something, as sentences: which role holds there, through which branch, and what it does not let them do. */
export function forbiddenWords(powers: Powers, { permission, at, site }: Forbidden): string {
  const { held, through } = heldAt(site, powers, at);
  const titled = (page: PageId) => {
    const node = site.nodes.get(page);
    return node ? `‘${textIn(node.title, site.settings.language)}’` : 'a page that is not there';
  };
  const where = at === null ? 'On the whole site' : `At ${titled(at)}`;
  const from = through !== null && through !== at ? `, through the branch ${titled(through)}` : '';
  const role = held ? `your role is ${held.role}${from}` : 'you have no role';
  return `This needs the permission ‘${PERMISSION_WORDS[permission].name}’. ${where} ${role}. Somebody who looks after colleagues can change that.`;
}
