import { z } from 'zod';

/** The id of a node of the tree. Made by whoever adds the node; unique within its site for ever. */
export const pageIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a page id is 1 to 24 letters and digits')
  .brand<'PageId'>();
export type PageId = z.infer<typeof pageIdSchema>;

/** The id of a piece of text, made from what it says (see `contentIdOf`). */
export const contentIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{12}$/, 'a content id is 12 letters and digits')
  .brand<'ContentId'>();
export type ContentId = z.infer<typeof contentIdSchema>;

/** A site's key: the first step of its live address. */
export const siteKeySchema = z
  .string()
  .min(2, 'a key has at least 2 characters')
  .max(40, 'a key has at most 40 characters')
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'a key is made of small letters, digits and single hyphens between them')
  .brand<'SiteKey'>();
export type SiteKey = z.infer<typeof siteKeySchema>;

/** A BCP 47 language tag, such as `en` or `cy-GB`. */
const NO_LANGUAGE = 'a language is a tag such as "en" or "cy-GB"';
const tags = new Map<string, boolean>();

/** Whether it is a language tag (BCP 47): `en-GB-US` has the shape of one, and browsers and collators refuse it. */
function isLanguageTag(text: string): boolean {
  let isTag = tags.get(text);
  if (isTag === undefined) {
    try {
      isTag = Intl.getCanonicalLocales(text).length === 1;
    } catch {
      isTag = false;
    }
    if (tags.size >= 1000) tags.clear();
    tags.set(text, isTag);
  }
  return isTag;
}

export const languageSchema = z
  .string()
  .regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, NO_LANGUAGE)
  .refine(isLanguageTag, NO_LANGUAGE);
export type Language = z.infer<typeof languageSchema>;

/** @throws ZodError when the text is not a page id: for constants and tests, not for input. */
export const toPageId = (text: string): PageId => pageIdSchema.parse(text);
/** @throws ZodError when the text is not a site key: for constants and tests, not for input. */
export const toSiteKey = (text: string): SiteKey => siteKeySchema.parse(text);
