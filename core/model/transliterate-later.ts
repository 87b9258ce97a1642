/**
 * What stands for `transliterate.ts` in browsers (`#transliterate` in package.json): its tables are larger than the rest of the core,
 * and no row of a tree needs them before a title is changed. Until they are fetched slugs are guessed.
 */
let known: ((text: string) => string) | null = null;
let hasGuessed = false;

/** As in `transliterate.ts`; before its tables are here, with what has no plain letter left out. */
export function transliterate(text: string): string {
  if (known) return known(text);
  hasGuessed = true;
  return text
    .normalize('NFD')
    .replace(/[^\x20-\x7e]/g, '')
    .toLowerCase();
}

/** Fetches the tables. @returns whether anything was guessed until now, and is to be worked out again */
export async function fetchTransliteration(): Promise<boolean> {
  known ??= (await import('./transliterate.ts')).transliterate;
  const isToBeCorrected = hasGuessed;
  hasGuessed = false;
  return isToBeCorrected;
}
