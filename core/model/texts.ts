import { z } from 'zod';
import { type Language, languageSchema } from './ids.ts';

/** What visitors will read, by language. No language stands here with an empty text. */
export type Texts = Readonly<Record<string, string>>;

export const NO_TEXTS: Texts = Object.freeze({});

/** Texts as they come in an operation: an empty text takes the language out. */
export const textsSchema = (longest: number) =>
  z.record(languageSchema, z.string().max(longest, `at most ${longest} characters`));

/** The text in a language, else in any other language that there is, else ''. */
export function textIn(texts: Texts, language: Language): string {
  const text = texts[language];
  if (text !== undefined) return text;
  for (const other in texts) return texts[other]!;
  return '';
}

/**
 * The texts with the changes made. Spaces are trimmed and runs of white space become one space.
 * Where nothing changes the same object comes back.
 */
export function withTexts(texts: Texts, changes: Texts): Texts {
  let result: Record<string, string> | null = null;
  for (const [language, raw] of Object.entries(changes)) {
    const text = raw.replace(/\s+/g, ' ').trim();
    if ((texts[language] ?? '') === text) continue;
    result ??= { ...texts };
    if (text === '') delete result[language];
    else result[language] = text;
  }
  return result ?? texts;
}

/** The change that makes `before` of `after`, for the languages of either. */
export function textsChange(after: Texts, before: Texts): Texts {
  const change: Record<string, string> = {};
  for (const language of Object.keys(after)) change[language] = '';
  return { ...change, ...before };
}

export const sameTexts = (a: Texts, b: Texts): boolean => {
  if (a === b) return true;
  for (const language in a) if (a[language] !== b[language]) return false;
  for (const language in b) if (!(language in a)) return false;
  return true;
};
