import { z } from 'zod';
import { audienceIdSchema } from '#core/model/audience.ts';
import { SYNC_KINDS } from '#core/visitors/directory-sync.ts';

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

const groupAudiences = z.record(z.string().min(1).max(200), audienceIdSchema);

/** What a site takes from the organisation's directory. */
export const directoryAnswer = z.object({
  isConnected: z.boolean(),
  /** Why it could not be read, as a sentence. */
  fault: z.string().nullable(),
  groups: z.array(z.object({ id: z.string(), name: z.string(), members: z.number() })),
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
