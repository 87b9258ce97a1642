import { z } from 'zod';
import { FIELD_TYPE } from '../fields/all-types.ts';
import type { FieldContext } from '../fields/field-type.ts';
import { contentIdSchema, pageIdSchema } from '../model/ids.ts';
import { fieldIdSchema } from '../model/kind-field.ts';
import { type FormField, asKindField, formFieldTypeSchema } from '../model/site-form.ts';
import type { ReadForm } from './reading.ts';

/** What becomes of an answer. */
export const ANSWER_STATES = ['new', 'begun', 'done'] as const;
export type AnswerState = (typeof ANSWER_STATES)[number];
export const MAX_ANSWER_NOTE_LENGTH = 2000;

/** What an answer says in one field. It is whole in itself: the form may change afterwards. */
export const saidSchema = z.object({
  field: fieldIdSchema,
  name: z.string(),
  type: formFieldTypeSchema,
  value: z.string(),
  /** As the visitor would read it. */
  words: z.string(),
  /** What was agreed to: the page, what it said, and the number of the release by which it did. */
  agreed: z
    .object({ page: pageIdSchema, title: z.string(), content: contentIdSchema.nullable(), release: z.int() })
    .optional(),
});
export type Said = Readonly<z.infer<typeof saidSchema>>;

/** The text of a policy that is agreed to, as it is live. */
export type PolicyOf = (field: FormField) => Said['agreed'];

/** What is kept of an answer that was accepted, in the order of the form. */
export const saidIn = ({ asked, values }: ReadForm, context: FieldContext, policyOf: PolicyOf): Said[] =>
  asked.flatMap((field) => {
    const value = values.get(field.id);
    if (value === undefined) return [];
    const agreed = field.policy !== null && value === 'yes' ? policyOf(field) : undefined;
    return [
      {
        field: field.id,
        name: field.name,
        type: field.type,
        value,
        words: field.type === 'file' ? value : FIELD_TYPE[field.type].words(value, asKindField(field), context),
        ...(agreed && { agreed }),
      },
    ];
  });

/** The first words of an answer, by which one tells it from others: what it says in its first fields of text. */
export function firstWords(said: readonly Said[], longest = 80): string {
  const telling = said.filter(({ type }) => type !== 'yesNo' && type !== 'choice' && type !== 'file');
  const words = (telling.length > 0 ? telling : said)
    .slice(0, 2)
    .map((one) => one.words.replace(/\s+/g, ' '))
    .join(' · ');
  return words.length > longest ? `${words.slice(0, longest - 2)} …` : words;
}
