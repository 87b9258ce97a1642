import { isSameJson } from './canonical-json.ts';
import { z } from 'zod';
import { layoutIdSchema } from './layout.ts';
import { trailSettingSchema } from './trail-setting.ts';

/** How a page lists what stands below it. `sitemap`: the whole tree, for visitors. */
export const LISTING_LOOKS = ['list', 'cards', 'a to z', 'sitemap', 'none'] as const;
export const LISTING_ORDERS = ['tree', 'alphabet', 'date'] as const;

export const listingSchema = z.strictObject({
  look: z.enum(LISTING_LOOKS),
  levels: z.number().int().min(1).max(6),
  order: z.enum(LISTING_ORDERS),
});
export type Listing = Readonly<z.infer<typeof listingSchema>>;

/** What pages list that say nothing of it: the pages right below. */
export const PLAIN_LISTING: Listing = { look: 'list', levels: 1, order: 'tree' };

/** What a page says of its frame. What it says nothing of is as the page above has it, or the site. */
export const frameSchema = z.strictObject({
  /** Its layout, and that of what stands below it. */
  layout: layoutIdSchema.nullable(),
  /** How its trail looks; with `branch` that of what stands below it too. */
  trail: z.strictObject({ setting: trailSettingSchema, reach: z.enum(['page', 'branch']) }).nullable(),
  listing: listingSchema.nullable(),
  /** The day that it is of, for lists that are in the order of days. */
  date: z.iso.date().nullable(),
});
export type PageFrame = Readonly<z.infer<typeof frameSchema>>;
export const frameChangeSchema = frameSchema.partial();
export type FrameChange = z.infer<typeof frameChangeSchema>;

export const NO_FRAME: PageFrame = { layout: null, trail: null, listing: null, date: null };
const FIELDS = Object.keys(NO_FRAME) as (keyof PageFrame)[];

/** The frame with the changes made; null where it says nothing. Where nothing changes the same object comes back. */
export function withFrame(frame: PageFrame | null, change: FrameChange): PageFrame | null {
  const before = frame ?? NO_FRAME;
  const next: PageFrame = { ...before, ...change };
  if (FIELDS.every((field) => isSameJson(before[field], next[field]))) return frame;
  return FIELDS.every((field) => next[field] === null) ? null : next;
}

/** The change that makes `before` of `after`, for the fields that differ. */
export function frameChange(after: PageFrame | null, before: PageFrame | null): FrameChange {
  const [from, to] = [after ?? NO_FRAME, before ?? NO_FRAME];
  return Object.fromEntries(
    FIELDS.filter((field) => !isSameJson(from[field], to[field])).map((field) => [field, to[field]]),
  );
}

/** A frame without what it says nothing of, as it is kept and sent; `fromKeptFrame` gives back the same. */
export const toKeptFrame = (frame: PageFrame): FrameChange => frameChange(null, frame);
export const fromKeptFrame = (kept: FrameChange | null): PageFrame | null =>
  kept === null ? null : withFrame(null, kept);

export const sameFrame = (a: PageFrame | null, b: PageFrame | null): boolean =>
  a === b || (a !== null && b !== null && FIELDS.every((field) => isSameJson(a[field], b[field])));
