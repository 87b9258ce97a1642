import { slugify } from 'transliteration';

/** A text in small plain letters, whatever its script, with hyphens between what is no letter or digit. */
export const transliterate = (text: string): string => slugify(text, { lowercase: true, separator: '-' });
