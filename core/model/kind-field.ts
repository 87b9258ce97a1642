import { z } from 'zod';
import { labelIdSchema } from './access.ts';

export const fieldIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a field is 1 to 24 letters and digits')
  .brand<'FieldId'>();
export type FieldId = z.infer<typeof fieldIdSchema>;

export const MAX_FIELD_NAME_LENGTH = 60;
export const MAX_FIELD_HELP_LENGTH = 300;
/** So many fields has one kind at most, those that were removed among them. */
export const MAX_FIELDS = 40;
export const MAX_CHOICES = 60;
export const MAX_CHOICE_NAME_LENGTH = 60;
/** The longest value, in UTF-16 units. */
export const MAX_DETAIL_LENGTH = 4000;

/** What a field can hold. `core/fields` has one entry for each. */
export const FIELD_TYPES = [
  'text',
  'longText',
  'number',
  'money',
  'yesNo',
  'choice',
  'day',
  'moment',
  'period',
  'repeats',
  'telephone',
  'mail',
  'link',
  'address',
  'place',
  'file',
  'pages',
] as const;
export type FieldTypeName = (typeof FIELD_TYPES)[number];

export const choiceSchema = z.strictObject({
  id: z.string().regex(/^[0-9A-Za-z]{1,12}$/, 'the id of a choice is 1 to 12 letters and digits'),
  // Several are written with semicolons between them.
  name: z
    .string()
    .trim()
    .min(1)
    .max(MAX_CHOICE_NAME_LENGTH)
    .regex(/^[^;\n]*$/, 'a choice has no semicolon in its name'),
});
export type Choice = Readonly<z.infer<typeof choiceSchema>>;

/** All that is said of a field besides its id and its name. */
export const fieldSettingsSchema = z.strictObject({
  type: z.enum(FIELD_TYPES),
  /** What helps whoever fills it in. */
  help: z.string().max(MAX_FIELD_HELP_LENGTH),
  isRequired: z.boolean(),
  isForVisitors: z.boolean(),
  /** What pages say that say nothing of it; null for nothing. */
  initial: z.string().max(MAX_DETAIL_LENGTH).nullable(),
  /** What schema.org calls it; null where machines are told nothing of it. */
  property: z
    .string()
    .regex(/^[a-z][A-Za-z]{0,39}$/, 'a property of schema.org is a word such as jobTitle')
    .nullable(),
  /** Of a number: what is counted. */
  unit: z.string().trim().max(20),
  /** Of money: the currency of amounts that name none, as ISO 4217 has it. */
  currency: z.string().regex(/^[A-Z]{3}$/, 'a currency is three capital letters, such as EUR'),
  /** What can be chosen. */
  choices: z.array(choiceSchema).max(MAX_CHOICES),
  /** Of choices and pages: whether there can be several. */
  isSeveral: z.boolean(),
  /** Of pages: the kind that they are of; null for any. */
  of: labelIdSchema.nullable(),
  /** Of pages: the heading under which those pages list the ones that name them; '' where they do not. */
  backName: z.string().trim().max(MAX_FIELD_NAME_LENGTH),
  /** A field that was removed is asked for no more; what pages say in it is kept until it is put back. */
  isRemoved: z.boolean(),
  /** What it was before, the latest last: values that were written then are read as that. */
  earlier: z.array(z.enum(FIELD_TYPES)).max(FIELD_TYPES.length),
});
export type FieldSettings = Readonly<z.infer<typeof fieldSettingsSchema>>;

export const NO_FIELD_SETTINGS: FieldSettings = {
  type: 'text',
  help: '',
  isRequired: false,
  isForVisitors: true,
  initial: null,
  property: null,
  unit: '',
  currency: 'EUR',
  choices: [],
  isSeveral: false,
  of: null,
  backName: '',
  isRemoved: false,
  earlier: [],
};

export const kindFieldSchema = z.strictObject({
  id: fieldIdSchema,
  name: z.string().min(1).max(MAX_FIELD_NAME_LENGTH),
  ...fieldSettingsSchema.shape,
});
/** Something that each page of a kind can say of itself, such as a price. */
export type KindField = Readonly<z.infer<typeof kindFieldSchema>>;
