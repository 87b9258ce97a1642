/**
 * A function of a language and of what is asked of it that remembers what it made: to make a formatter of the platform takes a hundred times
 * as long as to use it, and lists use the same one for each of their rows. Whoever asks in many languages or time zones shall not fill the
 * memory.
 */
function remembering<How extends object, Formatter>(
  make: (language: string, how: How) => Formatter,
  keyOf: (how: How) => string = JSON.stringify,
): (language: string, how: How) => Formatter {
  const made = new Map<string, Formatter>();
  return (language, how) => {
    const key = language + keyOf(how);
    let formatter = made.get(key);
    if (formatter === undefined) {
      if (made.size >= MOST) made.clear();
      made.set(key, (formatter = make(language, how)));
    }
    return formatter;
  };
}
const MOST = 500;

/** Says days and moments. @param language as a BCP 47 tag, here as below */
export const dateFormatter = remembering(
  (language, how: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(language, how),
);

/** Says numbers and sums. */
export const numberFormatter = remembering(
  (language, how: Intl.NumberFormatOptions) => new Intl.NumberFormat(language, how),
);

/** Says several things as one list. */
export const listFormatter = remembering((language, how: Intl.ListFormatOptions) => new Intl.ListFormat(language, how));

const collatorOf = remembering(
  (language, how: Intl.CollatorOptions) => new Intl.Collator(language, how),
  () => '',
);
const NUMBERS_BY_SIZE = { numeric: true } as const;

/** Puts words in order as a dictionary of the language has them, numbers within by size. */
export const wordOrder = (language: string): Intl.Collator => collatorOf(language, NUMBERS_BY_SIZE);
