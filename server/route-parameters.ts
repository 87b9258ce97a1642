import type { Request } from 'express';
import { type PageId, pageIdSchema, type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { type TextPlace, textPlaceSchema } from '#core/model/text-place.ts';
import type { ProblemCode, ProblemParams } from '#contract/problems.ts';
import { ProblemError } from './problem.ts';

/** The site that a request's path names. @throws ProblemError */
export function siteOf(request: Request): SiteKey {
  const parsed = siteKeySchema.safeParse(request.params.site);
  if (!parsed.success) throw new ProblemError('site-unknown', { site: String(request.params.site) });
  return parsed.data;
}

/** A page's id from outside. @throws ProblemError */
export function pageOf(text: unknown): PageId {
  const parsed = pageIdSchema.safeParse(text);
  if (!parsed.success) throw new ProblemError('page-unknown', { page: String(text).slice(0, 60) });
  return parsed.data;
}

/** The text that a request's path names. @throws ProblemError `text-unknown` */
export function textPlaceOf({ params: { of, id } }: Request): TextPlace {
  const parsed = textPlaceSchema.safeParse({ of, id });
  if (!parsed.success) throw new ProblemError('text-unknown', { text: `${String(of)}/${String(id)}`.slice(0, 60) });
  return parsed.data;
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** An id that the database makes. @throws ProblemError of that code where it can be none. */
export function uuidOf(text: unknown, otherwise: ProblemCode, params: ProblemParams = {}): string {
  const id = String(text);
  if (!UUID.test(id)) throw new ProblemError(otherwise, params);
  return id;
}

/** A number in a path or a query as it counts releases and revisions; null where it is none that is kept (above 2^53 none is). */
export function countIn(text: unknown): number | null {
  const number = typeof text === 'string' && /^\d{1,16}$/.test(text) ? Number(text) : Number.NaN;
  return Number.isSafeInteger(number) ? number : null;
}
