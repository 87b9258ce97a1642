import { FIELD_TYPE } from '../fields/all-types.ts';
import { fieldsFor } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import type { PageId } from '../model/ids.ts';
import type { KindField } from '../model/kind-field.ts';
import type { PageLabel } from '../model/page-label.ts';
import type { Site } from '../model/site.ts';
import { type Outline, outlineOf } from './outline.ts';

/** Pages that name another one in a field, as rows in the order of the tree. */
export interface Naming {
  readonly field: KindField;
  readonly rows: readonly number[];
}

const NOBODY: readonly Naming[] = Object.freeze([]);
const known = new WeakMap<Outline, { readonly labels: readonly PageLabel[]; readonly of: NamedBy }>();
type NamedBy = ReadonlyMap<PageId, readonly Naming[]>;

/**
 * The pages that name a page in a field of their kind, field by field: the other side of what these say. It is derived and kept nowhere,
 * so both sides say the same. Everything is in it, whoever may see it: what is hidden from a visitor is to be left out.
 */
export const namedBy = (site: Site, page: PageId): readonly Naming[] => namingsOf(site).get(page) ?? NOBODY;

function namingsOf(site: Site): NamedBy {
  const outline = outlineOf(site);
  const { labels } = site.settings;
  const before = known.get(outline);
  if (before?.labels === labels) return before.of;
  const found = new Map<PageId, Map<KindField, number[]>>();
  outline.nodes.forEach(({ type, access, details }, row) => {
    if (type !== 'page' || details === null || access === null) return;
    for (const field of fieldsFor(ruleOf({ access }).labels, labels))
      for (const page of pagesNamed(field, details[field.id])) {
        const ofPage = found.get(page) ?? new Map<KindField, number[]>();
        const rows = ofPage.get(field) ?? [];
        rows.push(row);
        found.set(page, ofPage.set(field, rows));
      }
  });
  const of: NamedBy = new Map(
    [...found].map(([page, fields]) => [page, [...fields].map(([field, rows]) => ({ field, rows }))]),
  );
  known.set(outline, { labels, of });
  return of;
}

/** The pages that a value of a field names; none where the field is of another type. */
export function pagesNamed(field: KindField, value: string | undefined): readonly PageId[] {
  const type = FIELD_TYPE[field.type];
  return value !== undefined && type.pages && type.isValue(value, field) ? type.pages(value) : [];
}
