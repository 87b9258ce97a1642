import { FIELD_TYPE } from '../fields/all-types.ts';
import type { FieldContext } from '../fields/field-type.ts';
import type { PageId } from '../model/ids.ts';
import { type FieldId, MAX_DETAIL_LENGTH } from '../model/kind-field.ts';
import { type FormField, type ShownIf, asKindField } from '../model/site-form.ts';

/**
 * What a visitor sent, by field: a text as it was typed; of choices and pages their ids, one each; of a period its first and its last
 * day; of a file its name. A field that nothing was sent of is left out.
 */
export type Sent = ReadonlyMap<FieldId, readonly string[]>;

/** Why an answer is not accepted: nothing is said in a field that is required, or what is said means nothing to its type. */
export type FormFault = 'required' | 'unreadable';

export interface ReadForm {
  /** What is said in the fields that are asked for, as values of their types; of a file its name. */
  readonly values: ReadonlyMap<FieldId, string>;
  readonly faults: ReadonlyMap<FieldId, FormFault>;
  /** The fields that are asked for, by what is said in others. */
  readonly asked: readonly FormField[];
}

/** Reads what was sent of a form's fields. What is sent in fields that are not asked for counts for nothing. */
export function readForm(
  fields: readonly FormField[],
  sent: Sent,
  context: FieldContext,
  /** Whether a page can be chosen in a field. */
  mayChoose: (page: PageId, field: FormField) => boolean,
): ReadForm {
  const values = new Map<FieldId, string>();
  const faults = new Map<FieldId, FormFault>();
  const asked: FormField[] = [];
  fields.forEach((field, at) => {
    if (!isAsked(field, fields.slice(0, at), values)) return;
    asked.push(field);
    const value = valueOf(field, sent.get(field.id) ?? [], context, mayChoose);
    if (value === undefined) faults.set(field.id, 'unreadable');
    else if (value !== null) values.set(field.id, value);
    if (field.isRequired && (value === null || (field.type === 'yesNo' && value === 'no')))
      faults.set(field.id, 'required');
  });
  return { values, faults, asked };
}

/**
 * Whether a field is asked for, by the values of those before it. A condition on a field that does not stand before it asks nothing.
 */
export function isAsked(
  { shownIf }: FormField,
  before: readonly FormField[],
  values: ReadonlyMap<FieldId, string>,
): boolean {
  const of = shownIf && before.find(({ id }) => id === shownIf.field);
  return !of || holds(shownIf!, of, values.get(of.id));
}

function holds({ test, value }: ShownIf, { type }: FormField, said: string | undefined): boolean {
  // A box that is not ticked says nothing.
  const isSaid = type === 'yesNo' ? said === 'yes' : said !== undefined;
  if (test === 'said' || test === 'not said') return isSaid === (test === 'said');
  const isSame = type === 'choice' || type === 'pages' ? (said?.split(' ') ?? []).includes(value) : said === value;
  return isSame === (test === 'is');
}

/** The value that was sent; null for none, undefined for what means nothing to the type. */
function valueOf(
  field: FormField,
  sent: readonly string[],
  context: FieldContext,
  mayChoose: (page: PageId, field: FormField) => boolean,
): string | null | undefined {
  if (sent.some((text) => text.length > MAX_DETAIL_LENGTH)) return undefined;
  const said = sent.map((text) => text.trim()).filter((text) => text !== '');
  if (field.type === 'yesNo') return said.includes('yes') ? 'yes' : 'no';
  if (said.length === 0) return null;
  const type = FIELD_TYPE[field.type];
  const kindField = asKindField(field);
  switch (field.type) {
    case 'file':
      return said[0]!;
    case 'choice': {
      const ids = new Set(said);
      const known = field.choices.flatMap(({ id }) => (ids.has(id) ? [id] : []));
      const value = known.join(' ');
      return known.length === ids.size && type.isValue(value, kindField) ? value : undefined;
    }
    case 'pages': {
      const value = [...new Set(said)].join(' ');
      const isOne = type.isValue(value, kindField) && type.pages!(value).every((page) => mayChoose(page, field));
      return isOne ? value : undefined;
    }
    case 'period':
      return type.read(said.length > 1 ? `${said[0]!}/${said[1]!}` : said[0]!, kindField, context);
    default:
      return type.read(said[0]!, kindField, context);
  }
}

/** A step of a form: the fields that are filled in together. */
export interface FormStep {
  /** Null for the first one where no field begins it. */
  readonly heading: string | null;
  readonly fields: readonly FormField[];
}

/** The fields of a form by steps. */
export function stepsOf(fields: readonly FormField[]): FormStep[] {
  const steps: { heading: string | null; fields: FormField[] }[] = [];
  for (const field of fields) {
    if (field.step !== null || steps.length === 0) steps.push({ heading: field.step, fields: [] });
    steps.at(-1)!.fields.push(field);
  }
  return steps;
}
