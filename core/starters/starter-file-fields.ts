import { z } from 'zod';
import {
  FIELD_TYPES,
  MAX_FIELDS,
  MAX_FIELD_NAME_LENGTH,
  choiceSchema,
  fieldSettingsSchema,
} from '../model/kind-field.ts';
import { MAX_LABEL_NAME_LENGTH } from '../model/page-label.ts';
import { MAX_TITLE_LENGTH } from '../model/page-fields.ts';
import {
  MAX_FORM_FIELDS,
  MAX_FORM_NAME_LENGTH,
  SHOWN_IF_TESTS,
  formFieldSchema,
  formFieldTypeSchema,
  formSettingsSchema,
} from '../model/site-form.ts';

const fieldName = z.string().trim().min(1).max(MAX_FIELD_NAME_LENGTH);
const kindName = z.string().trim().min(1).max(MAX_LABEL_NAME_LENGTH);
const title = z.string().trim().min(1).max(MAX_TITLE_LENGTH);
const { help, isRequired, isForVisitors, property, unit, currency, isSeveral, backName } = fieldSettingsSchema.shape;
/** Choices, and the kind that pages are of, go by their names: ids are a site's own. */
const named = { choices: z.array(choiceSchema.shape.name).max(60), of: kindName };

/** A field of a starter's kind. What is as usual is left out. */
export const starterFieldSchema = z
  .strictObject({ help, isRequired, isForVisitors, property, unit, currency, isSeveral, backName, ...named })
  .partial()
  .extend({ name: fieldName, type: z.enum(FIELD_TYPES) });
export type StarterField = z.infer<typeof starterFieldSchema>;
export const starterFieldsSchema = z.array(starterFieldSchema).max(MAX_FIELDS);

const { step, filledWith } = formFieldSchema.shape;
const starterFormFieldSchema = z
  .strictObject({
    help,
    isRequired,
    unit,
    currency,
    isSeveral,
    step,
    filledWith,
    ...named,
    /** The title of the page that is agreed to. */
    policy: title,
    /** The field by its name; of a choice the value is one of them by its name. */
    shownIf: z.strictObject({ field: fieldName, test: z.enum(SHOWN_IF_TESTS), value: z.string().max(200) }),
  })
  .partial()
  .extend({ name: fieldName, type: formFieldTypeSchema });
export type StarterFormField = z.infer<typeof starterFormFieldSchema>;

const { button, thanks, keptDays } = formSettingsSchema.shape;
/** A form that a starter's pages show. Who is told of answers is a site's own. */
export const starterFormSchema = z
  .strictObject({ button, thanks, keptDays, /** The title of a page. */ leadsTo: title })
  .partial()
  .extend({
    name: z.string().trim().min(1).max(MAX_FORM_NAME_LENGTH),
    fields: z.array(starterFormFieldSchema).max(MAX_FORM_FIELDS),
  });
export type StarterForm = z.infer<typeof starterFormSchema>;
