import { FIELD_TYPE } from '../fields/all-types.ts';
import type { FieldContext } from '../fields/field-type.ts';
import { valueAs } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import type { DetailsChange } from '../model/details.ts';
import type { FieldId, KindField } from '../model/kind-field.ts';
import { kindChanges } from '../model/kind-outline.ts';
import type { SiteNode } from '../model/node.ts';
import type { PageChanges } from '../model/page-fields.ts';
import { type PageKind, type PageLabel, isKind, kindAmong } from '../model/page-label.ts';
import { short } from './address-list.ts';

/** The column of the kind of a page, by the kind's name. */
export const KIND_COLUMN = 'kind';

interface FieldColumn {
  readonly name: string;
  readonly kind: PageKind;
  readonly field: KindField;
}

/** A column for each field of each kind, such as `Course: Price`; where two would have the same name, the field's id tells them apart. */
export function fieldColumns(labels: readonly PageLabel[]): FieldColumn[] {
  const all = labels
    .filter(isKind)
    .flatMap((kind) =>
      (kind.fields ?? [])
        .filter(({ isRemoved }) => !isRemoved)
        .map((field) => ({ kind, field, name: `${kind.name}: ${field.name}` })),
    );
  const counts = new Map<string, number>();
  for (const { name } of all) counts.set(name.toLowerCase(), (counts.get(name.toLowerCase()) ?? 0) + 1);
  return all.map((one) =>
    counts.get(one.name.toLowerCase()) === 1 ? one : { ...one, name: `${one.name} (${one.field.id})` },
  );
}

/** What stands in the columns of the kind and of fields. What a field cannot hold any more stands there as it was written. */
export function writeFieldCells(
  { access, details }: Pick<SiteNode, 'access' | 'details'>,
  columns: readonly FieldColumn[],
  labels: readonly PageLabel[],
  context: FieldContext,
): string[] {
  const kind = kindAmong(ruleOf({ access }).labels, labels);
  const cells = columns.map(({ kind: of, field }) => {
    const kept = of.id === kind?.id ? details?.[field.id] : undefined;
    if (kept === undefined) return '';
    const value = valueAs(field, kept, context);
    return value === null ? kept : FIELD_TYPE[field.type].written(value, field, context);
  });
  return [kind?.name ?? '', ...cells];
}

/** The column that a name in a file means: that of a field by its own name, or by the field's where one kind alone has such a field. */
export function columnNamed(name: string, columns: readonly FieldColumn[]): FieldColumn | undefined {
  const asked = name.trim().toLowerCase();
  const same = columns.find((one) => one.name.toLowerCase() === asked);
  if (same) return same;
  const ofField = columns.filter(({ field }) => field.name.toLowerCase() === asked);
  return ofField.length === 1 ? ofField[0] : undefined;
}

/**
 * What the cells of a row say of a page's kind and its fields. @param node the page that the row is of, as it is
 * @param cellOf the text in a column by its name in the file; undefined where there is no such column @param note is told what is left out
 */
export function readFieldCells(
  node: Pick<SiteNode, 'type' | 'access' | 'content'>,
  named: readonly { readonly column: FieldColumn; readonly in: string }[],
  labels: readonly PageLabel[],
  context: FieldContext,
  cellOf: (column: string) => string | undefined,
  note: (detail: string) => void,
): Pick<PageChanges, 'access' | 'content' | 'details'> {
  const borne = ruleOf(node).labels;
  const before = kindAmong(borne, labels);
  const kindName = cellOf(KIND_COLUMN)?.trim();
  const isNamed = ({ name }: PageKind): boolean => name.toLowerCase() === kindName?.toLowerCase();
  // Of kinds with the same name the page keeps its own.
  const asked =
    kindName === undefined || (before !== null && isNamed(before))
      ? before
      : (labels.filter(isKind).find(isNamed) ?? null);
  const isUnknown = kindName !== undefined && kindName !== '' && asked === null;
  if (isUnknown) note(`The site has no kind ‘${short(kindName)}’; it is left out.`);
  const kind = isUnknown ? before : asked;
  const details: Record<FieldId, string | null> = {};
  for (const { column, in: name } of named) {
    const text = cellOf(name)?.trim() ?? '';
    if (column.kind.id !== kind?.id) {
      if (text !== '')
        note(`‘${short(text)}’ in ${name} is left out: the page is not of the kind ${column.kind.name}.`);
      continue;
    }
    const { field } = column;
    const value = text === '' ? null : FIELD_TYPE[field.type].read(text, field, context);
    if (value === undefined)
      note(`‘${short(text)}’ in ${name} is left out: the field holds ${FIELD_TYPE[field.type].expects(field)}.`);
    else details[field.id] = value;
  }
  return {
    ...kindChanges(node, kind?.id ?? null, labels),
    ...(Object.keys(details).length > 0 && { details: details as DetailsChange }),
  };
}
