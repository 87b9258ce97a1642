import { z } from 'zod';
import { MAX_COMMENT_LENGTH } from '../model/feedback.ts';

export const MAX_PASSAGE_LENGTH = 500;
export const MAX_AROUND_LENGTH = 60;

/** The lenses in whose rows something is said, as the workbench names them. */
export const TALK_LENSES = ['plan', 'write', 'access', 'menus', 'publish', 'checks'] as const;

const around = z.string().max(MAX_AROUND_LENGTH).default('');

/**
 * A passage of a page's text, by its words and those before and after it: so it is found again when the text has changed around it. The
 * parts are those of the TextQuoteSelector in the W3C's Web Annotation Data Model.
 */
export const aboutPassageSchema = z.strictObject({
  exact: z
    .string()
    .trim()
    .min(1, 'Select the words.')
    .max(MAX_PASSAGE_LENGTH, `At most ${MAX_PASSAGE_LENGTH} characters.`),
  prefix: around,
  suffix: around,
});
export type AboutPassage = Readonly<z.infer<typeof aboutPassageSchema>>;

/** A section of a page's text: its type, which of that type it is (from 0), and how its words begin. */
export const aboutSectionSchema = z.strictObject({
  section: z.string().regex(/^[A-Za-z]{1,40}$/),
  nth: z.number().int().min(0).max(5000),
  begins: z.string().max(MAX_AROUND_LENGTH).default(''),
});
export type AboutSection = Readonly<z.infer<typeof aboutSectionSchema>>;

/** What a lens shows of the page, such as who may open it. */
export const aboutLensSchema = z.strictObject({ lens: z.enum(TALK_LENSES) });
export type AboutLens = Readonly<z.infer<typeof aboutLensSchema>>;

/** What of a page somebody talks about; null for the page as a whole. */
export const aboutSchema = z.union([aboutPassageSchema, aboutSectionSchema, aboutLensSchema]).nullable();
export type About = z.infer<typeof aboutSchema>;

export const commentTextSchema = z
  .string()
  .trim()
  .min(1, 'Type what you want to say.')
  .max(MAX_COMMENT_LENGTH, `At most ${MAX_COMMENT_LENGTH} characters.`);

/** Why something concerns somebody, the strongest reason first. */
export const CONCERN_KINDS = ['mention', 'review', 'returned', 'approved', 'answer', 'comment', 'handed over'] as const;
export type ConcernKind = (typeof CONCERN_KINDS)[number];

/** How somebody wants to hear by mail of what concerns them. */
export const MAIL_WISHES = ['at-once', 'daily', 'never'] as const;
export type MailWish = (typeof MAIL_WISHES)[number];
