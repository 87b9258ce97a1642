import { z } from 'zod';
import { labelIdSchema } from '../model/access.ts';
import { FIELD_TYPE } from '../fields/all-types.ts';
import { maybeField } from '../fields/values.ts';
import {
  type FieldId,
  type FieldTypeName,
  type KindField,
  MAX_FIELDS,
  MAX_FIELD_NAME_LENGTH,
  NO_FIELD_SETTINGS,
  fieldIdSchema,
  fieldSettingsSchema,
} from '../model/kind-field.ts';
import type { PageLabel } from '../model/page-label.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';
import type { Operation } from './operation.ts';
import { allBut, fieldsBefore } from './things.ts';

const title = z.string().max(MAX_FIELD_NAME_LENGTH, `at most ${MAX_FIELD_NAME_LENGTH} characters`);

export const fieldAddSchema = z.strictObject({
  name: z.literal('field.add'),
  /** The kind that has it. */
  label: labelIdSchema,
  field: fieldIdSchema,
  /** The field that it follows; null puts it first, left out puts it last. */
  after: fieldIdSchema.nullable().optional(),
  title,
  settings: fieldSettingsSchema.partial().optional(),
});

/** Adds a field to a kind. Whoever adds it makes the id, which no other field of the site has. */
export const fieldAdd = defineOperation({
  schema: fieldAddSchema,

  apply(site, { label: id, field, after, title: name, settings }) {
    const label = site.settings.labels.find((one) => one.id === id);
    if (!label) return refuse('label-unknown', { label: id });
    if (maybeField(site.settings.labels, field)) return refuse('field-exists', { field });
    const fields = label.fields ?? [];
    if (fields.length >= MAX_FIELDS) return refuse('field-too-many', { limit: MAX_FIELDS });
    const made: KindField = { ...NO_FIELD_SETTINGS, ...settings, id: field, name: name.trim() };
    return checkField(made) ?? become(site, label, placed(fields, made, after), { name: 'field.remove', field });
  },

  cells: ({ field }) => [`field:${field}.there`],

  words: ({ label, title: text }, site) => `added the field ‘${text}’ to ${namedLabel(site, label)}`,
});

export const fieldSetSchema = z.strictObject({
  name: z.literal('field.set'),
  field: fieldIdSchema,
  fields: fieldSettingsSchema.extend({ title }).partial(),
});

/** Sets what is said of a field. Another type changes no value: each is read as the type of now from then on. */
export const fieldSet = defineOperation({
  schema: fieldSetSchema,

  apply(site, { field, fields: { title: name, ...settings } }) {
    const found = maybeField(site.settings.labels, field);
    if (!found) return refuse('field-unknown', { field });
    const { field: was, label } = found;
    const next: KindField = {
      ...was,
      earlier: settings.type === undefined ? was.earlier : earlierTypes(was, settings.type),
      ...settings,
      name: name?.trim() ?? was.name,
    };
    const before = fieldsBefore(was, next);
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    return (
      checkField(next) ??
      become(
        site,
        label,
        label.fields!.map((one) => (one === was ? next : one)),
        { name: 'field.set', field, fields: before },
      )
    );
  },

  cells: ({ field, fields }) => Object.keys(fields).map((name) => `field:${field}.${name}`),

  words({ field, fields }, site) {
    const name = namedField(site, field);
    if (fields.title !== undefined) return `renamed the field ${name} to ‘${fields.title}’`;
    if (fields.isRemoved !== undefined)
      return fields.isRemoved ? `removed the field ${name}` : `put the field ${name} back`;
    return fields.type === undefined
      ? `changed the field ${name}`
      : `made the field ${name} one for: ${FIELD_TYPE[fields.type].name.toLowerCase()}`;
  },
});

export const fieldMoveSchema = z.strictObject({
  name: z.literal('field.move'),
  field: fieldIdSchema,
  /** The field that it is to follow; null puts it first. */
  after: fieldIdSchema.nullable(),
});

/** Puts a field elsewhere among those of its kind. */
export const fieldMove = defineOperation({
  schema: fieldMoveSchema,

  apply(site, { field, after }) {
    const found = maybeField(site.settings.labels, field);
    if (!found) return refuse('field-unknown', { field });
    const fields = found.label.fields!;
    if (after !== null && !fields.some(({ id }) => id === after)) return refuse('field-unknown', { field: after });
    const at = fields.indexOf(found.field);
    const before = fields[at - 1]?.id ?? null;
    if (after === field || after === before) return { ok: true, site, inverse: [], touched: [] };
    const rest = fields.filter(({ id }) => id !== field);
    return become(site, found.label, placed(rest, found.field, after), { name: 'field.move', field, after: before });
  },

  cells: ({ field }) => [`field:${field}.place`],

  words: ({ field }, site) => `moved the field ${namedField(site, field)}`,
});

export const fieldRemoveSchema = z.strictObject({ name: z.literal('field.remove'), field: fieldIdSchema });

/** Takes a field away for good; what pages say in it stays with them unseen. What can be put back is removed by `field.set`. */
export const fieldRemove = defineOperation({
  schema: fieldRemoveSchema,

  apply(site, { field }) {
    const found = maybeField(site.settings.labels, field);
    if (!found) return refuse('field-unknown', { field });
    const fields = found.label.fields!;
    return become(
      site,
      found.label,
      fields.filter(({ id }) => id !== field),
      {
        name: 'field.add',
        label: found.label.id,
        field,
        after: fields[fields.indexOf(found.field) - 1]?.id ?? null,
        title: found.field.name,
        settings: allBut(found.field, 'id', 'name'),
      },
    );
  },

  cells: ({ field }) => [`field:${field}.there`],

  words: ({ field }, site) => `deleted the field ${namedField(site, field)}`,
});

const namedField = (site: Site, id: FieldId): string =>
  `‘${maybeField(site.settings.labels, id)?.field.name ?? 'that is not there'}’`;
const namedLabel = (site: Site, id: string): string =>
  `‘${site.settings.labels.find((one) => one.id === id)?.name ?? 'that is not there'}’`;

/** The types that it had, without the one that it is given; the latest last. */
const earlierTypes = ({ type, earlier }: KindField, next: FieldTypeName): FieldTypeName[] =>
  type === next ? earlier : [...earlier.filter((one) => one !== next && one !== type), type];

function checkField({ id, name, choices }: KindField): Refusal | null {
  if (name === '') return refuse('field-unnamed', { field: id });
  const areOnce = (all: readonly string[]): boolean => new Set(all).size === all.length;
  return areOnce(choices.map((one) => one.id)) && areOnce(choices.map((one) => one.name.toLowerCase()))
    ? null
    : refuse('choice-twice', { field: name });
}

function placed(fields: KindField[], field: KindField, after: FieldId | null | undefined): KindField[] {
  const before = after == null ? -1 : fields.findIndex(({ id }) => id === after);
  const isLast = after === undefined || (after !== null && before === -1);
  return fields.toSpliced(isLast ? fields.length : before + 1, 0, field);
}

/** The site with other fields of a label. One without any says nothing of fields, as before it had the first. */
function become(site: Site, label: PageLabel, fields: KindField[], inverse: Operation): Applied {
  const next = { ...allBut(label, 'fields'), ...(fields.length > 0 && { fields }) } as unknown as PageLabel;
  const labels = site.settings.labels.map((one) => (one === label ? next : one));
  return { ok: true, site: withSettings(site, { ...site.settings, labels }), inverse: [inverse], touched: [] };
}
