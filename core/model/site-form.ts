import { z } from 'zod';
import { isMailAddress } from './cut-text.ts';
import { pageIdSchema } from './ids.ts';
import {
  FIELD_TYPES,
  type FieldTypeName,
  type KindField,
  MAX_DETAIL_LENGTH,
  MAX_FIELD_NAME_LENGTH,
  NO_FIELD_SETTINGS,
  fieldIdSchema,
  fieldSettingsSchema,
} from './kind-field.ts';

export const formIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a form is 1 to 24 letters and digits')
  .brand<'FormId'>();
export type FormId = z.infer<typeof formIdSchema>;

export const MAX_FORMS = 60;
export const MAX_FORM_NAME_LENGTH = 60;
export const MAX_FORM_FIELDS = 60;
export const MAX_FORM_BUTTON_LENGTH = 40;
export const MAX_FORM_THANKS_LENGTH = 600;
export const MAX_FORM_MAILS = 10;
/** For so many days answers are kept at most, and unless somebody says otherwise. */
export const MAX_KEPT_DAYS = 3650;
const USUAL_KEPT_DAYS = 365;

/** What visitors can be asked for: all but a rule by which days repeat, which nobody types on the way. */
export type FormFieldType = Exclude<FieldTypeName, 'repeats'>;
export const FORM_FIELD_TYPES = FIELD_TYPES.filter((type): type is FormFieldType => type !== 'repeats');
export const formFieldTypeSchema = z.enum(FORM_FIELD_TYPES);

/** What was said in a field has to be so, or not. */
export const SHOWN_IF_TESTS = ['is', 'is not', 'said', 'not said'] as const;
export const shownIfSchema = z.strictObject({
  field: fieldIdSchema,
  test: z.enum(SHOWN_IF_TESTS),
  /** A value in the form of that field's type; of several choices, one of them. Nothing is asked of it where the test is whether something was said. */
  value: z.string().max(MAX_DETAIL_LENGTH),
});
export type ShownIf = Readonly<z.infer<typeof shownIfSchema>>;

const { help, isRequired, unit, currency, choices, isSeveral, of } = fieldSettingsSchema.shape;
export const formFieldSchema = z.strictObject({
  id: fieldIdSchema,
  name: z.string().trim().min(1).max(MAX_FIELD_NAME_LENGTH),
  type: formFieldTypeSchema,
  help,
  isRequired,
  unit,
  currency,
  choices,
  isSeveral,
  of,
  /** The heading of the step that begins with it; null where it stands in the step of the field before. */
  step: z.string().trim().min(1).max(MAX_FIELD_NAME_LENGTH).nullable(),
  /** Whether it is asked for depends on a field before it; null where it always is. */
  shownIf: shownIfSchema.nullable(),
  /** Of yes or no: the page whose text is agreed to. The answer keeps which version of it that was. */
  policy: pageIdSchema.nullable(),
  /** What of a visitor's account stands in it at first. */
  filledWith: z.enum(['name', 'mail']).nullable(),
});
/** Something that a form asks for. */
export type FormField = Readonly<z.infer<typeof formFieldSchema>>;

export const NO_FORM_FIELD_SETTINGS: Omit<FormField, 'id' | 'name'> = {
  type: 'text',
  help: '',
  isRequired: false,
  unit: '',
  currency: 'EUR',
  choices: [],
  isSeveral: false,
  of: null,
  step: null,
  shownIf: null,
  policy: null,
  filledWith: null,
};

/** All that is said of a form besides its id and its name. */
export const formSettingsSchema = z.strictObject({
  fields: z.array(formFieldSchema).max(MAX_FORM_FIELDS),
  /** What stands on the button; '' for the site's own word. */
  button: z.string().trim().max(MAX_FORM_BUTTON_LENGTH),
  /** The page that whoever sent it is led to; null where it is answered in its place. */
  leadsTo: pageIdSchema.nullable(),
  /** What stands in its place then; '' for the site's own words. */
  thanks: z.string().trim().max(MAX_FORM_THANKS_LENGTH),
  /** Who is told of each answer. */
  mailTo: z.array(z.string().max(254).refine(isMailAddress, 'not a mail address')).max(MAX_FORM_MAILS),
  /** Whether mails say what was answered, and not only that there is an answer. */
  areMailsWhole: z.boolean(),
  /** After so many days an answer is deleted. */
  keptDays: z.int().min(1).max(MAX_KEPT_DAYS),
});
export type FormSettings = Readonly<z.infer<typeof formSettingsSchema>>;

export const NO_FORM_SETTINGS: FormSettings = {
  fields: [],
  button: '',
  leadsTo: null,
  thanks: '',
  mailTo: [],
  areMailsWhole: true,
  keptDays: USUAL_KEPT_DAYS,
};

export const siteFormSchema = z.strictObject({
  id: formIdSchema,
  name: z.string().min(1).max(MAX_FORM_NAME_LENGTH),
  ...formSettingsSchema.shape,
});
/** What visitors fill in and send. It stands in the texts of pages by its id. */
export type SiteForm = Readonly<z.infer<typeof siteFormSchema>>;

/** A field of a form as the types of fields know one. */
export const asKindField = (field: FormField): KindField => ({ ...NO_FIELD_SETTINGS, ...field });
