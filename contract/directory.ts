import { z } from 'zod';
import { audienceIdSchema } from '#core/model/audience.ts';
import { SYNC_KINDS } from '#core/directory/directory-person.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { roleIdSchema } from '#core/people/role.ts';
import { roleAtSchema } from './people.ts';

/** How a synchronisation ended. */
export const lastSync = z.object({
  at: z.iso.datetime(),
  /** Who asked for it. */
  by: z.string(),
  made: z.number(),
  changed: z.number(),
  suspended: z.number(),
  inTheWay: z.number(),
  /** Why nothing was done, as a sentence; null where it was. */
  fault: z.string().nullable(),
});
export type LastSync = z.infer<typeof lastSync>;

/** A group of the directory, and how many are in it. */
const groupOfDirectory = z.object({ id: z.string(), name: z.string(), members: z.number() });
const groupId = z.string().min(1).max(200);

const groupAudiences = z.record(groupId, audienceIdSchema);

/** What a site takes from the organisation's directory. */
export const directoryAnswer = z.object({
  isConnected: z.boolean(),
  /** Why it could not be read, as a sentence. */
  fault: z.string().nullable(),
  groups: z.array(groupOfDirectory),
  /** The audience of each group that has one. */
  groupAudiences,
  isNightly: z.boolean(),
  last: lastSync.nullable(),
});
export type DirectoryAnswer = z.infer<typeof directoryAnswer>;

export const setDirectoryBody = z.strictObject({ groupAudiences, isNightly: z.boolean() });

/** Without `apply` nothing is changed, and the answer says what would be. */
export const syncBody = z.strictObject({ apply: z.boolean() });
export const syncAnswer = z.object({
  items: z.array(
    z.object({
      kind: z.enum(SYNC_KINDS),
      name: z.string(),
      email: z.string(),
      gains: z.array(audienceIdSchema),
      loses: z.array(audienceIdSchema),
      isTakenOver: z.boolean(),
    }),
  ),
});
export type SyncAnswer = z.infer<typeof syncAnswer>;

export const MAX_GROUP_ROLES = 50;
/** The role that the members of a group have: on a branch, or on the whole site for `null`. */
export const groupRoleSchema = z.strictObject({ group: groupId, page: pageIdSchema.nullable(), role: roleIdSchema });

/** What a site takes from the directory for its colleagues. */
export const colleagueDirectoryAnswer = z.object({
  isConnected: z.boolean(),
  /** Why it could not be read, as a sentence. */
  fault: z.string().nullable(),
  groups: z.array(groupOfDirectory),
  groupRoles: z.array(groupRoleSchema),
  isNightly: z.boolean(),
  last: lastSync.nullable(),
});
export type ColleagueDirectoryAnswer = z.infer<typeof colleagueDirectoryAnswer>;

export const setColleagueDirectoryBody = z.strictObject({
  groupRoles: z
    .array(groupRoleSchema)
    .max(MAX_GROUP_ROLES, `At most ${MAX_GROUP_ROLES} roles of groups.`)
    .refine(
      (all) => new Set(all.map(({ group, page }) => JSON.stringify([group, page]))).size === all.length,
      'One role for each group and place.',
    ),
  isNightly: z.boolean(),
});

export const colleagueSyncAnswer = z.object({
  items: z.array(
    z.object({
      kind: z.enum(SYNC_KINDS),
      name: z.string(),
      email: z.string(),
      gains: z.array(roleAtSchema),
      loses: z.array(roleAtSchema),
      isTakenOver: z.boolean(),
    }),
  ),
});
export type ColleagueSyncAnswer = z.infer<typeof colleagueSyncAnswer>;
