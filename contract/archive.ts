import { z } from 'zod';
import { MAX_FILE_NAME_LENGTH } from '#core/files/file-name.ts';
import { FILE_TYPES, MAX_ALTERNATIVE_LENGTH, fileContentSchema, fileIdSchema } from '#core/files/file.ts';
import { contentIdSchema, pageIdSchema } from '#core/model/ids.ts';
import { SETTINGS_PARTS } from '#core/model/settings-parts.ts';
import { operationSchema } from '#core/operations/operation.ts';
import { packedSiteSchema } from './packed-site.ts';

const moment = z.iso.datetime({ offset: true });
/** A person by their place in the list of people, or null. */
const person = z.number().int().min(0).nullable();

/** An edit as the log has it: what was done, in words too, and the way back. */
export const archivedEdit = z.strictObject({
  revision: z.number().int().min(1),
  at: moment,
  by: person,
  kind: z.enum(['edit', 'undo', 'redo', 'release']),
  words: z.string(),
  operations: z.array(operationSchema),
  inverse: z.array(operationSchema),
  /** The revision whose tree it went back to. */
  wentBackTo: z.number().int().min(0).optional(),
  cells: z.array(z.string()),
});
export type ArchivedEdit = z.infer<typeof archivedEdit>;

export const archivedRelease = z.strictObject({
  number: z.number().int().min(1),
  revision: z.number().int().min(1),
  at: moment,
  by: person,
  pages: z.number().int(),
  retired: z.number().int(),
  name: z.string(),
  note: z.string(),
  settings: z.array(z.enum(SETTINGS_PARTS)),
  takesBack: z.number().int().nullable(),
});

/** A file of the library. Where the archive has the bytes, they stand in a file of this id beside it. */
export const archivedFile = z.strictObject({
  id: fileIdSchema,
  name: z.string().min(1).max(MAX_FILE_NAME_LENGTH),
  type: z.enum(Object.keys(FILE_TYPES)),
  content: fileContentSchema,
  alternative: z.string().max(MAX_ALTERNATIVE_LENGTH),
  isDecoration: z.boolean(),
  focalX: z.number().min(0).max(1),
  focalY: z.number().min(0).max(1),
  addedAt: moment,
  isRemoved: z.boolean(),
  /** What it was before it was replaced: addresses that lead to it still. */
  formerContents: z.array(fileContentSchema),
});
export type ArchivedFile = z.infer<typeof archivedFile>;

export const archivedContent = z.strictObject({
  id: contentIdSchema,
  document: z.looseObject({ type: z.literal('doc') }),
});

/** A whole site with all that became of it: `docs/formats` tells of it. */
export const archiveSchema = z.strictObject({
  format: z.literal('spur-archive'),
  version: z.literal(1),
  writtenAt: moment,
  /** Draft, removed pages and what is live, as the workbench has them, with the revision. */
  site: packedSiteSchema,
  /** The number of the latest release. */
  release: z.number().int().min(0),
  /** When each page went live last. */
  liveAt: z.record(pageIdSchema, moment),
  contents: z.array(archivedContent),
  /** Addresses that were live and are not, with the page that had each last. */
  formerAddresses: z.array(z.strictObject({ path: z.string().startsWith('/'), page: pageIdSchema, since: moment })),
  /** Where addresses of the old site lead since the latest release. */
  oldRedirects: z.array(z.strictObject({ path: z.string(), page: pageIdSchema.nullable() })),
  /** What passphrases are checked against; the words themselves are nowhere. */
  passphrases: z.array(z.strictObject({ id: z.string(), hash: z.string().startsWith('$argon2id$') })),
  /** Archives of earlier versions have none. */
  files: z.array(archivedFile).default([]),
  people: z.array(z.strictObject({ name: z.string(), email: z.string() })),
  releases: z.array(archivedRelease),
  history: z.array(archivedEdit),
});
export type Archive = z.infer<typeof archiveSchema>;

/** What of an archive grows with the site's age, and is read and written one by one. */
export const LONG_LISTS = { contents: archivedContent, history: archivedEdit } as const;
export const archiveHeadSchema = archiveSchema.omit({ contents: true, history: true });
export type ArchiveHead = z.infer<typeof archiveHeadSchema>;
