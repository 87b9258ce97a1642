import { z } from 'zod';
import { type FieldId, MAX_DETAIL_LENGTH, fieldIdSchema } from './kind-field.ts';

/**
 * What a page says in the fields of its kind, by the ids of the fields. Each value is a text in the one form that its type has for it
 * (`core/fields`), so what is equal is equal letter by letter. What was said in a field that its kind has no more is kept.
 */
export type Details = Readonly<Record<FieldId, string>>;

/** A change of some of them; null takes one away. */
export const detailsChangeSchema = z.record(fieldIdSchema, z.string().min(1).max(MAX_DETAIL_LENGTH).nullable());
export type DetailsChange = Readonly<z.infer<typeof detailsChangeSchema>>;
export const keptDetailsSchema = z.record(fieldIdSchema, z.string().min(1).max(MAX_DETAIL_LENGTH));

const NONE: Details = Object.freeze({});
const idsIn = (details: Details): FieldId[] => Object.keys(details) as FieldId[];

/** The details with the changes made, in the order of their ids; null where nothing is said. Where nothing changes the same object comes back. */
export function withDetails(details: Details | null, change: DetailsChange): Details | null {
  const before = details ?? NONE;
  const changed = idsIn(change as Details).filter((id) => (before[id] ?? null) !== change[id]);
  if (changed.length === 0) return details;
  const next: Record<FieldId, string> = { ...before };
  for (const id of changed) {
    const value = change[id] ?? null;
    if (value === null) delete next[id];
    else next[id] = value;
  }
  const ids = idsIn(next).sort();
  return ids.length === 0 ? null : (Object.fromEntries(ids.map((id) => [id, next[id]])) as Details);
}

/** The change that makes `before` of `after`, for the values that differ. */
export function detailsChange(after: Details | null, before: Details | null): DetailsChange {
  const [from, to] = [after ?? NONE, before ?? NONE];
  const ids = [...new Set([...idsIn(from), ...idsIn(to)])].filter((id) => from[id] !== to[id]);
  return Object.fromEntries(ids.map((id) => [id, to[id] ?? null]));
}

export const sameDetails = (a: Details | null, b: Details | null): boolean =>
  a === b || Object.keys(detailsChange(a, b)).length === 0;
