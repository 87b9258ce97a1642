import { z } from 'zod';
import type { PageId } from '../model/ids.ts';
import { type PermissionSet, hasAllOf } from '../model/permission.ts';
import { isPractice } from '../model/practice.ts';
import type { Site } from '../model/site.ts';
import { type Role, type RoleId, permissionsOf, roleIdSchema } from '../people/role.ts';

export const MAX_APPROVERS = 20;

/** Who decides: everybody who has a role there, or may do as much, or these persons. */
export const decidedBySchema = z.union([
  z.strictObject({ role: roleIdSchema }),
  z.strictObject({
    people: z
      .array(z.uuid())
      .min(1, 'Choose at least one person.')
      .max(MAX_APPROVERS, `At most ${MAX_APPROVERS} persons.`),
  }),
]);
export type DecidedBy = Readonly<z.infer<typeof decidedBySchema>>;

/** What goes live in a branch, or on the whole site for `null`, needs the approval of so many. */
export interface ApprovalRule {
  readonly page: PageId | null;
  readonly by: DecidedBy;
  readonly count: number;
}

/** The rules that name somebody among those who decide. */
export const rulesNaming = (rules: readonly ApprovalRule[], person: string): ApprovalRule[] =>
  rules.filter(({ by }) => 'people' in by && by.people.includes(person));

/** A rule that names somebody, with somebody else in their place; it wants no more approvals than there are persons then. */
export function handedOver(rule: ApprovalRule, from: string, to: string): ApprovalRule {
  if (!('people' in rule.by)) return rule;
  const people = [...new Set(rule.by.people.map((one) => (one === from ? to : one)))];
  return { ...rule, by: { people }, count: Math.min(rule.count, people.length) };
}

/**
 * The rule that holds for a page: the nearest at it or above in the draft. Where there is none, the nearest above where visitors have it, so
 * that no page gets around its rule by being moved; else that of the whole site; null where there is none, and for what is for practice.
 */
export function ruleAt(site: Site, rules: readonly ApprovalRule[], page: PageId): ApprovalRule | null {
  if (rules.length === 0 || isPractice(site, page)) return null;
  const nearest = (above: (at: PageId) => PageId | null): ApprovalRule | undefined => {
    for (let at: PageId | null = page; at !== null; at = above(at)) {
      const rule = rules.find((one) => one.page === at);
      if (rule) return rule;
    }
    return undefined;
  };
  return (
    nearest((at) => site.nodes.get(at)?.parent ?? null) ??
    nearest((at) => site.live.get(at)?.node.parent ?? null) ??
    rules.find((one) => one.page === null) ??
    null
  );
}

/** Whether somebody is among those who decide by a rule. @param permissions what they hold at the page */
export function decides(
  { by }: ApprovalRule,
  roles: readonly Role[],
  { id, permissions }: { readonly id: string; readonly permissions: PermissionSet },
): boolean {
  if ('people' in by) return by.people.includes(id);
  const role = roles.find((one) => one.id === by.role);
  return role !== undefined && hasAllOf(permissions, permissionsOf(role));
}

export const isRole = (by: DecidedBy): by is { readonly role: RoleId } => 'role' in by;
