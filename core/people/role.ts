import { z } from 'zod';
import { type Permission, type PermissionSet, permissionSchema, setOf } from '../model/permission.ts';

export const MAX_ROLE_NAME_LENGTH = 60;
export const MAX_ROLES = 30;

export const roleIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z_-]{1,40}$/)
  .brand('RoleId');
export type RoleId = z.infer<typeof roleIdSchema>;

/** A named set of permissions. Whoever has a role at all reads. */
export const roleSchema = z.strictObject({
  id: roleIdSchema,
  name: z
    .string()
    .trim()
    .min(1, 'Type a name.')
    .max(MAX_ROLE_NAME_LENGTH, `At most ${MAX_ROLE_NAME_LENGTH} characters.`),
  permissions: z.array(permissionSchema),
});
export type Role = z.infer<typeof roleSchema>;

const shipped = (id: string, name: string, ...permissions: Permission[]): Role => ({
  id: roleIdSchema.parse(id),
  name,
  permissions: ['read', ...permissions],
});

export const READER = shipped('reader', 'Reader');
export const MANAGER = shipped('manager', 'Manager', 'everything');

/** The roles that every site has. A site can have others beside them. */
export const SHIPPED_ROLES: readonly Role[] = [
  READER,
  shipped('writer', 'Writer', 'comment', 'plan', 'write'),
  shipped('editor', 'Editor', 'comment', 'plan', 'write', 'shape', 'menus'),
  shipped('publisher', 'Publisher', 'comment', 'plan', 'write', 'shape', 'menus', 'access', 'publish'),
  MANAGER,
];

export const isShipped = (id: RoleId): boolean => SHIPPED_ROLES.some((role) => role.id === id);

/** All that a role lets somebody do. */
export const permissionsOf = (role: Role): PermissionSet => setOf(['read', ...role.permissions]);
