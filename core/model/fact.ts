import { z } from 'zod';
import { isMailAddress } from './cut-text.ts';

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
  /** Whether the header of pages says it. */
  inHeader: z.boolean().optional(),
});
/** Something about the site that is said in many places and kept once. */
export type Fact = Readonly<z.infer<typeof factSchema>>;

/** Where a fact leads that is a telephone number or a mail address as a whole: `tel:` (RFC 3966) or `mailto:` (RFC 6068); null for any other. */
export function leadOfFact({ text }: Pick<Fact, 'text'>): string | null {
  const words = text.trim();
  if (isMailAddress(words)) return `mailto:${words.split('@').map(encodeURIComponent).join('@')}`;
  // A number begins with + or 0: what else has many digits is a time, a day or a postcode.
  if (!/^[+(0][\d ()/-]+$/.test(words)) return null;
  const digits = words.replace('(0)', words.startsWith('+') ? '' : '0').replace(/[^\d+]/g, '');
  return digits.length >= 6 && digits.length <= 16 ? `tel:${digits}` : null;
}

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
