import { z } from 'zod';

export const factIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a fact is 1 to 24 letters and digits')
  .brand<'FactId'>();
export type FactId = z.infer<typeof factIdSchema>;

export const MAX_FACT_NAME_LENGTH = 40;
export const MAX_FACT_LENGTH = 300;
export const MAX_FACTS = 60;

export const factSchema = z.strictObject({
  id: factIdSchema,
  name: z.string().min(1).max(MAX_FACT_NAME_LENGTH),
  text: z.string().max(MAX_FACT_LENGTH),
  /** Whether the footer of pages says it. */
  inFooter: z.boolean(),
});
/** Something about the site that is said in many places and kept once. */
export type Fact = Readonly<z.infer<typeof factSchema>>;

/** The fact that tall headers say below the site's name. */
export const STRAPLINE = factIdSchema.parse('strapline');

const fact = (id: string, name: string, inFooter: boolean): Fact => ({
  id: factIdSchema.parse(id),
  name,
  text: '',
  inFooter,
});

/** The facts that a new site has a place for; they say nothing until somebody fills them in. */
export const FIRST_FACTS: readonly Fact[] = [
  fact('strapline', 'Strapline', false),
  fact('address', 'Address', true),
  fact('telephone', 'Telephone', true),
  fact('mail', 'Mail', true),
];
