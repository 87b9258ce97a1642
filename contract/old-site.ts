import { z } from 'zod';
import { REASONS } from '#core/carryover/reasons.ts';
import type { DescribedThing } from '#core/fields/from-schema-org.ts';
import { FILE_KINDS } from '#core/files/file.ts';
import { libraryFile } from './files.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { INVENTORY_FIELDS } from '#core/formats/inventory-csv.ts';

const moment = z.iso.datetime();

/** The largest file of the old site that is brought, in bytes. */
export const MAX_OLD_FILE = 100_000_000;

export const oldTextBody = z.strictObject({
  address: z.string().min(1).max(2000),
  /** Pictures and documents up to so many bytes come along. */
  largest: z.number().int().min(0).max(MAX_OLD_FILE).default(20_000_000),
});
const described: z.ZodType<DescribedThing> = z.object({
  types: z.array(z.string()),
  get says() {
    return z.record(z.string(), z.array(z.union([z.string(), described])));
  },
});
export const oldTextAnswer = z.object({
  /** The main text, cleaned, with whole addresses. */
  html: z.string(),
  /** What it describes for machines, by JSON-LD and microdata. */
  things: z.array(described),
  /** What was taken into the library, by the addresses that the text names. */
  files: z.array(z.object({ address: z.string(), file: libraryFile })),
  /** What was not, and why. */
  left: z.array(z.object({ address: z.string(), why: z.string() })),
});
export type OldTextAnswer = z.infer<typeof oldTextAnswer>;

export const CRAWL_STATES = ['running', 'stopped', 'done', 'failed'] as const;
export const crawlSummary = z.object({
  start: z.string(),
  state: z.enum(CRAWL_STATES),
  /** Why it failed, or stopped where it did. */
  why: z.string().nullable(),
  read: z.number().int(),
  waiting: z.number().int(),
  /** How many addresses were found and left out. */
  left: z.number().int(),
  mostPages: z.number().int(),
  beganAt: moment,
  endedAt: moment.nullable(),
});
export type CrawlSummary = z.infer<typeof crawlSummary>;

export const crawlBody = z.strictObject({
  start: z.string().min(1, 'Type the address where the old site begins.').max(2000),
  mostPages: z.number().int().min(1).max(20_000).default(2000),
  /** Between two pages, in milliseconds. */
  pauseMs: z.number().int().min(0).max(20_000).default(300),
  /** Which files come into the library, up to so many bytes each. */
  files: z
    .strictObject({ kinds: z.array(z.enum(FILE_KINDS)).readonly(), largest: z.number().int().min(0).max(MAX_OLD_FILE) })
    .default({ kinds: [], largest: 0 }),
});
export type CrawlBody = z.output<typeof crawlBody>;
export const crawlAnswer = z.object({
  crawl: crawlSummary.nullable(),
  faults: z.array(z.object({ address: z.string(), fault: z.string() })),
});

const oldPageWire = z.object({
  address: z.string(),
  title: z.string(),
  description: z.string(),
  headings: z.array(z.string()),
  words: z.number().int().nullable(),
  linksIn: z.number().int().nullable(),
  linksOut: z.number().int().nullable(),
  status: z.number().int().nullable(),
  visits: z.number().int().nullable(),
});
export const oldSiteAnswer = z.object({ version: z.number().int(), pages: z.array(oldPageWire) });
export type OldSiteAnswer = z.infer<typeof oldSiteAnswer>;

const columnsSchema = z.partialRecord(z.enum(INVENTORY_FIELDS), z.number().int().min(0).max(1000));
export const bringOldPagesBody = z.strictObject({
  from: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('list'), text: z.string().max(5_000_000) }),
    z.strictObject({ kind: z.literal('address'), address: z.string().min(1).max(2000) }),
    z.strictObject({
      kind: z.literal('file'),
      name: z.string().max(300),
      /** Its bytes, in base 64. */
      bytes: z.base64().max(35_000_000),
      /** For CSV: which column is what. Left out: what the names of the columns tell. */
      columns: columnsSchema.optional(),
    }),
  ]),
  /** False: only what would come of it is told. */
  apply: z.boolean(),
});
export type BringOldPagesBody = z.output<typeof bringOldPagesBody>;
export const bringOldPagesAnswer = z.object({
  /** For CSV: its columns, and which was taken as what. */
  columns: z.array(z.string()).nullable(),
  taken: columnsSchema.nullable(),
  found: z.number().int(),
  added: z.number().int(),
  updated: z.number().int(),
  /** The first pages. */
  sample: z.array(oldPageWire),
  faults: z.array(z.object({ line: z.number().int(), detail: z.string() })),
  faultCount: z.number().int(),
});
export type BringOldPagesAnswer = z.infer<typeof bringOldPagesAnswer>;

export const carryOverAnswer = z.object({
  revision: z.number().int(),
  /** The number of the inventory's latest change. */
  version: z.number().int(),
  /** From this confidence on a pair can be accepted without a look at it. */
  acceptFrom: z.number(),
  pairs: z.array(
    z.object({
      old: z.string(),
      planned: pageIdSchema,
      kind: z.enum(['one', 'part', 'one-of-several']),
      confidence: z.number(),
      reasons: z.array(z.enum(REASONS)),
    }),
  ),
});
export type CarryOverAnswer = z.infer<typeof carryOverAnswer>;
export type CarryOverPair = CarryOverAnswer['pairs'][number];

export const removeOldPagesBody = z.strictObject({
  addresses: z.union([z.literal('all'), z.array(z.string().max(2000)).max(50_000)]),
});
export const removeOldPagesAnswer = z.object({ removed: z.number().int() });
