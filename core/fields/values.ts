import type { LabelId } from '../model/access.ts';
import type { Details, DetailsChange } from '../model/details.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import type { FieldId, KindField } from '../model/kind-field.ts';
import { type PageLabel, isKind, kindAmong } from '../model/page-label.ts';
import { FIELD_TYPE } from './all-types.ts';
import type { FieldContext } from './field-type.ts';

const NO_FIELDS: readonly KindField[] = Object.freeze([]);

/** The fields of the kind among labels that a page bears, without those that were removed. */
export const fieldsFor = (borne: readonly LabelId[], labels: readonly PageLabel[]): readonly KindField[] => {
  const fields = kindAmong(borne, labels)?.fields ?? NO_FIELDS;
  return fields.some(({ isRemoved }) => isRemoved) ? fields.filter(({ isRemoved }) => !isRemoved) : fields;
};

/** A field of a site with the label that has it. */
export interface FieldOfSite {
  readonly field: KindField;
  readonly label: PageLabel;
}

/** A field of the site, removed ones too. */
export function maybeField(labels: readonly PageLabel[], id: FieldId): FieldOfSite | undefined {
  for (const label of labels) {
    const field = label.fields?.find((one) => one.id === id);
    if (field) return { field, label };
  }
  return undefined;
}

/** The same, if it was not removed. */
export function maybeUsedField(labels: readonly PageLabel[], id: FieldId): FieldOfSite | undefined {
  const found = maybeField(labels, id);
  return found?.field.isRemoved ? undefined : found;
}

/** The types whose values are ids: as texts they would say nothing to anybody. */
const OF_IDS = ['choice', 'pages', 'file'] as const;

/**
 * A value that was written as one type, as its field has it now: the value itself where it is one, else what its words mean; null where
 * they mean nothing to the type of now. Nothing is written, so a type that is changed back finds its values as they were.
 */
export function valueAs(field: KindField, kept: string, given: FieldContext): string | null {
  const { type, earlier } = field;
  const own = FIELD_TYPE[type];
  if (earlier.length === 0 && own.isValue(kept, field)) return kept;
  // A day without a year would be another one next year.
  const context = { ...given, today: '' };
  const wasIds = OF_IDS.find((one) => one !== type && earlier.includes(one) && areIds(one, kept, field, context));
  const words = wasIds === undefined ? undefined : FIELD_TYPE[wasIds].written(kept, manyOf(field), context);
  if (words !== undefined) return own.read(words, field, context) ?? null;
  if (own.isValue(kept, field)) return kept;
  for (const one of earlier.toReversed()) {
    if (!FIELD_TYPE[one].isValue(kept, manyOf(field))) continue;
    const read = own.read(FIELD_TYPE[one].written(kept, manyOf(field), context), field, context);
    if (read !== undefined) return read;
  }
  return own.read(kept, field, context) ?? null;
}

const manyOf = (field: KindField): KindField => (field.isSeveral ? field : { ...field, isSeveral: true });

/** Whether all ids of a text are of something that there is: what people write is not by chance. */
function areIds(type: (typeof OF_IDS)[number], kept: string, field: KindField, context: FieldContext): boolean {
  const { isValue, pages, files } = FIELD_TYPE[type];
  return (
    isValue(kept, manyOf(field)) &&
    (pages?.(kept) ?? []).every((page) => context.titleOf(page) !== undefined) &&
    (files?.(kept) ?? []).every((file) => context.fileName(file) !== undefined)
  );
}

/** What a page says in a field: its own value, or the one that holds for pages that say nothing; null for nothing, and for what the field cannot hold. */
export function detailOf(details: Details | null, field: KindField, context: FieldContext): string | null {
  const kept = details?.[field.id];
  if (kept !== undefined) return valueAs(field, kept, context);
  return field.initial !== null && FIELD_TYPE[field.type].isValue(field.initial, field) ? field.initial : null;
}

/** Whether a page is of the kind that has a field. It bears one kind at most, so to bear that one is enough. */
export const isOfKindWith = ({ label }: FieldOfSite, { access }: Pick<SiteNode, 'access'>): boolean =>
  isKind(label) && access !== null && access.labels.includes(label.id);

/** What a page says in a field, which is nothing where it is of another kind. */
export const detailIn = (
  node: Pick<SiteNode, 'access' | 'details'>,
  found: FieldOfSite,
  context: FieldContext,
): string | null => (isOfKindWith(found, node) ? detailOf(node.details, found.field, context) : null);

/** A change without the values that the fields of a site cannot hold: what was written in fields that are gone does not keep a page out. */
export function acceptedDetails(
  { settings: { labels } }: Site,
  change: DetailsChange | null | undefined,
): DetailsChange | undefined {
  if (change == null) return undefined;
  const accepted = (Object.entries(change) as [FieldId, string | null][]).filter(([id, value]) => {
    const field = maybeField(labels, id)?.field;
    return value === null || (field !== undefined && FIELD_TYPE[field.type].isValue(value, field));
  });
  return accepted.length > 0 ? Object.fromEntries(accepted) : undefined;
}
