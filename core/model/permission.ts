import { z } from 'zod';

/**
 * What a colleague may do, in the order in which it is shown. `everything` is all of it, and what concerns the site as a whole
 * besides: its name, its language, its archive.
 */
export const PERMISSIONS = [
  'read',
  'comment',
  'plan',
  'write',
  'shape',
  'menus',
  'access',
  'look',
  'publish',
  'answers',
  'people',
  'everything',
] as const;
export const permissionSchema = z.enum(PERMISSIONS);
export type Permission = (typeof PERMISSIONS)[number];

/** Some permissions: bit `i` stands for `PERMISSIONS[i]`. With `everything` all bits are set. */
export type PermissionSet = number;
export const NO_PERMISSION: PermissionSet = 0;
export const ALL_PERMISSIONS: PermissionSet = 2 ** PERMISSIONS.length - 1;

const bitOf = (permission: Permission): PermissionSet => 1 << PERMISSIONS.indexOf(permission);

export function setOf(permissions: Iterable<Permission>): PermissionSet {
  let set = NO_PERMISSION;
  for (const permission of permissions) set |= bitOf(permission);
  return has(set, 'everything') ? ALL_PERMISSIONS : set;
}

export const has = (set: PermissionSet, permission: Permission): boolean => (set & bitOf(permission)) !== 0;

/** Whether one set has all that another one has. */
export const hasAllOf = (set: PermissionSet, other: PermissionSet): boolean => (other & ~set) === 0;

export const listOf = (set: PermissionSet): Permission[] => PERMISSIONS.filter((permission) => has(set, permission));

/** A permission in words: its name, and what it lets somebody do, after "may". */
export const PERMISSION_WORDS: Readonly<Record<Permission, { readonly name: string; readonly may: string }>> = {
  read: { name: 'Read', may: 'read the texts' },
  comment: { name: 'Comment', may: 'comment on pages' },
  plan: { name: 'Plan', may: 'change the plan' },
  write: { name: 'Write', may: 'write texts, descriptions and fields' },
  shape: { name: 'Shape the tree', may: 'make, move, rename and remove pages' },
  menus: { name: 'Menus and layouts', may: 'put pages in menus, and choose layouts' },
  access: { name: 'Access', may: 'change who may open pages, and hide them' },
  look: { name: 'Look', may: 'change the look of the site' },
  publish: { name: 'Publish', may: 'make pages live and take them down' },
  answers: { name: 'Answers', may: 'see what visitors have sent' },
  people: { name: 'People', may: 'look after colleagues and visitors' },
  everything: { name: 'Everything', may: 'change the site as a whole' },
};
