import { z } from 'zod';
import { ALONG_REASONS } from '#core/changes/release-plan.ts';
import { REDIRECT_REASONS } from '#core/derive/redirects.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { destinationSchema, leadsToByPageSchema, redirectIdSchema } from '#core/model/redirect.ts';
import { SETTINGS_PARTS } from '#core/model/settings-parts.ts';
import { requestId } from './api.ts';

const moment = z.iso.datetime();
const pageList = z.array(pageIdSchema).max(200_000);
const parts = z.array(z.enum(SETTINGS_PARTS));

/** What a release is to hold. */
const askedShape = {
  pages: z.union([z.literal('all'), pageList]),
  retire: pageList.default([]),
  /** Which parts of the settings go along; all that differ where this is left out. */
  settings: parts.optional(),
  /** Where the addresses of pages lead that are taken down; to the page above where one is not named. */
  leadsTo: leadsToByPageSchema.optional(),
  name: z.string().trim().max(120, 'At most 120 characters.').default(''),
  note: z.string().trim().max(2000, 'At most 2,000 characters.').default(''),
  /** Why it is made without the approval that it needs. */
  override: z.string().trim().min(1, 'Say why.').max(2000, 'At most 2,000 characters.').optional(),
};
export const releaseBody = z.strictObject({ ...askedShape, request: requestId.optional() });
export type ReleaseBody = z.infer<typeof releaseBody>;

const addressChange = z.object({ page: pageIdSchema, before: z.string().nullable(), after: z.string().nullable() });
export const releasePlanAnswer = z.object({
  revision: z.number().int(),
  pages: z.array(pageIdSchema),
  retire: z.array(pageIdSchema),
  along: z.array(z.object({ page: pageIdSchema, because: z.enum(ALONG_REASONS), of: pageIdSchema })),
  /** The parts of the settings that come along, with the page or the part that names them. */
  parts: z.array(
    z.object({
      part: z.enum(SETTINGS_PARTS),
      of: z.union([z.object({ page: pageIdSchema }), z.object({ part: z.enum(SETTINGS_PARTS) })]),
    }),
  ),
  addresses: z.array(addressChange),
});
/** How far a release of many pages is, as the site's stream of events tells it. */
export const releaseProgress = z.object({
  /** The request that makes it, or null where none was named. */
  request: requestId.nullable(),
  done: z.number().int(),
  total: z.number().int(),
});
export type ReleaseProgress = z.infer<typeof releaseProgress>;
export const releaseAnswer = z.object({
  number: z.number().int(),
  revision: z.number().int(),
  pages: z.number().int(),
  retired: z.number().int(),
});

/** How many visitors' processes had not confirmed after ten seconds that visitors get what was changed; 0 as a rule. */
const unconfirmed = z.number().int();
export const madeReleaseAnswer = releaseAnswer.extend({ unconfirmed });
export type MadeRelease = z.infer<typeof madeReleaseAnswer>;

const release = releaseAnswer.extend({
  at: moment,
  by: z.string(),
  name: z.string(),
  note: z.string(),
  /** Why it was made without the approval that it needs; empty where it needs none, or has it. */
  override: z.string(),
  settings: parts,
  /** The release that it takes back, or null. */
  takesBack: z.number().int().nullable(),
});
export type ReleaseSummary = z.infer<typeof release>;
export const releasesAnswer = z.object({ releases: z.array(release) });

/** What taking a release back would do, and what of it stays as it is. */
export const takeBackPlanAnswer = z.object({
  revision: z.number().int(),
  pages: z.array(pageIdSchema),
  settings: parts,
  left: z.array(
    z.discriminatedUnion('because', [
      z.object({ page: pageIdSchema, because: z.literal('changed since'), release: z.number().int() }),
      z.object({ page: pageIdSchema, because: z.literal('parent'), of: pageIdSchema }),
      z.object({ page: pageIdSchema, because: z.literal('address'), of: pageIdSchema }),
      z.object({ page: pageIdSchema, because: z.literal('home') }),
      z.object({ page: pageIdSchema, because: z.literal('practice') }),
      z.object({ page: pageIdSchema, because: z.literal('setting'), part: z.enum(SETTINGS_PARTS) }),
    ]),
  ),
  /** With the release that changed it since; null where the former home page is not live, or its address is taken. */
  leftSettings: z.array(z.object({ part: z.enum([...SETTINGS_PARTS, 'home']), release: z.number().int().nullable() })),
  addresses: z.array(addressChange),
});
export type TakeBackAnswer = z.infer<typeof takeBackPlanAnswer>;
export const takeBackBody = z.strictObject({
  /** Take back the rest where something stands in the way. */
  anyway: z.boolean().default(false),
  request: requestId.optional(),
});

export const SCHEDULE_STATES = ['waiting', 'done', 'failed', 'called off'] as const;
export const scheduleBody = z.strictObject({ ...askedShape, at: moment, request: requestId.optional() });
export type ScheduleBody = z.infer<typeof scheduleBody>;
const scheduled = z.object({
  id: z.uuid(),
  at: moment,
  by: z.string(),
  name: z.string(),
  note: z.string(),
  pages: z.union([z.literal('all'), z.array(pageIdSchema)]),
  retire: z.array(pageIdSchema),
  state: z.enum(SCHEDULE_STATES),
  doneAt: moment.nullable(),
  release: z.number().int().nullable(),
  /** Why it failed, in words. */
  fault: z.string().nullable(),
});
export type ScheduledRelease = z.infer<typeof scheduled>;
export const scheduleAnswer = z.object({ scheduled: z.array(scheduled) });

/** An address that leads elsewhere on the live site. */
const liveRedirect = z.object({
  path: z.string(),
  to: destinationSchema,
  because: z.enum(REDIRECT_REASONS),
  /** The redirect, where it was made by hand. */
  redirect: redirectIdSchema.nullable(),
  /** Whether a page has the address by now, so that the redirect rests. */
  isResting: z.boolean(),
  since: moment.nullable(),
  hits: z.number().int(),
  lastHit: moment.nullable(),
});
export type LiveRedirect = z.infer<typeof liveRedirect>;
export const redirectsAnswer = z.object({ redirects: z.array(liveRedirect) });

/** Redirects of a table, line by line: each can be made, or says why not. */
export const readRedirectsBody = z.strictObject({ text: z.string().max(2_000_000, 'At most 2,000,000 characters.') });
export const readRedirectsAnswer = z.object({
  rows: z.array(
    z.object({
      line: z.number().int(),
      from: z.string(),
      to: z.string(),
      destination: destinationSchema.nullable(),
      fault: z.string().nullable(),
    }),
  ),
});
export type ReadRedirects = z.infer<typeof readRedirectsAnswer>;

/** An address that was not found. */
const missed = z.object({
  path: z.string(),
  hits: z.number().int(),
  firstAt: moment,
  lastAt: moment,
  /** The page of the site that led there, by its address, where one did. */
  from: z.string().nullable(),
  isLetBe: z.boolean(),
});
export type MissedAddress = z.infer<typeof missed>;
export const missedAnswer = z.object({ addresses: z.array(missed) });
export const letBeBody = z.strictObject({ path: z.string().max(300), isLetBe: z.boolean() });

/** That a site is closed for works: what visitors read, and when it is open again, as far as is known. */
export const worksSchema = z.strictObject({
  words: z.string().trim().max(600, 'At most 600 characters.'),
  until: moment.nullable(),
});
export type Works = z.infer<typeof worksSchema>;
export const worksBody = z.strictObject({ works: worksSchema.nullable() });
export const worksAnswer = z.object({ works: worksSchema.nullable() });
export const setWorksAnswer = worksAnswer.extend({ unconfirmed });
