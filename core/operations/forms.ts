import { z } from 'zod';
import { type Refusal, refuse } from '../model/refusal.ts';
import {
  type FormSettings,
  MAX_FORMS,
  MAX_FORM_NAME_LENGTH,
  NO_FORM_SETTINGS,
  type SiteForm,
  formIdSchema,
  formSettingsSchema,
} from '../model/site-form.ts';
import { defineOperation } from './definition.ts';
import { allBut, fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_FORM_NAME_LENGTH, `at most ${MAX_FORM_NAME_LENGTH} characters`);
const settings = formSettingsSchema.partial();

const forms = thingsOfSettings('form', 'forms', { most: MAX_FORMS, code: 'form-too-many' });

export const formAddSchema = z.strictObject({
  name: z.literal('form.add'),
  form: formIdSchema,
  /** The form that it follows; null puts it first, left out puts it last. */
  after: formIdSchema.nullable().optional(),
  title,
  settings: settings.optional(),
});

/** Adds a form. Whoever adds it makes the id. */
export const formAdd = defineOperation({
  schema: formAddSchema,

  apply(site, { form, after, title: name, settings: given }) {
    const made: SiteForm = { ...NO_FORM_SETTINGS, ...given, id: form, name: name.trim() };
    return forms.checkNew(site, form) ?? checkForm(made) ?? forms.add(site, made, after);
  },

  cells: ({ form }) => forms.cellOfThere(form),

  words: ({ title: name }) => `added the form ‘${name}’`,
});

export const formSetSchema = z.strictObject({
  name: z.literal('form.set'),
  form: formIdSchema,
  fields: settings.extend({ title: title.optional() }),
});

/** Renames a form, or sets what it asks for and what becomes of its answers. Answers that came before stay as they are. */
export const formSet = defineOperation({
  schema: formSetSchema,

  apply(site, { form, fields: { title: name, ...given } }) {
    const was = forms.find(site, form);
    if (!was) return forms.unknown(form);
    const next: SiteForm = { ...was, ...given, name: name?.trim() ?? was.name };
    return checkForm(next) ?? forms.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ form, fields }) => forms.cellsOfFields(form, fields),

  words({ form, fields }, site) {
    const name = forms.named(site, form);
    if (fields.title !== undefined) return `renamed the form ${name} to ‘${fields.title}’`;
    return fields.fields === undefined
      ? `changed the form ${name}`
      : changedFields(name, forms.find(site, form), fields);
  },
});

export const formRemoveSchema = z.strictObject({ name: z.literal('form.remove'), form: formIdSchema });

/** Takes a form away. Pages that show it have nothing in its place; its answers are kept as long as they would have been. */
export const formRemove = defineOperation({
  schema: formRemoveSchema,

  apply(site, { form }) {
    const was = forms.find(site, form);
    if (!was) return forms.unknown(form);
    return forms.remove(site, was, { title: was.name, settings: allBut(was, 'id', 'name') });
  },

  cells: ({ form }) => forms.cellOfThere(form),

  words: ({ form }, site) => `removed the form ${forms.named(site, form)}`,
});

function checkForm({ id, name, fields }: SiteForm): Refusal | null {
  if (name === '') return refuse('form-unnamed', { form: id });
  const twice = firstTwice(fields.map((field) => field.id)) ?? firstTwice(fields.map((field) => folded(field.name)));
  if (twice !== undefined) return refuse('form-field-twice', { field: twice });
  const faulty = fields.find(({ choices }) =>
    [choices.map((one) => one.id), choices.map((one) => folded(one.name))].some((all) => firstTwice(all) !== undefined),
  );
  return faulty ? refuse('choice-twice', { field: faulty.name }) : null;
}

const folded = (name: string): string => name.trim().toLowerCase();
const firstTwice = (all: readonly string[]): string | undefined => all.find((one, at) => all.indexOf(one) !== at);

/** What an edit of a form's fields comes to, where it is one field that is added, removed or set. */
function changedFields(name: string, was: SiteForm | undefined, { fields: next = [] }: Partial<FormSettings>): string {
  const before = was?.fields ?? [];
  const added = next.filter(({ id }) => !before.some((one) => one.id === id));
  const removed = before.filter(({ id }) => !next.some((one) => one.id === id));
  if (added.length === 1 && removed.length === 0) return `added the field ‘${added[0]!.name}’ to the form ${name}`;
  if (removed.length === 1 && added.length === 0)
    return `removed the field ‘${removed[0]!.name}’ from the form ${name}`;
  return `changed the fields of the form ${name}`;
}
