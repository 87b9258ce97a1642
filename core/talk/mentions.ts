/** Somebody who can be mentioned. */
export interface Mentionable {
  readonly id: string;
  readonly name: string;
}

/** A mention in a text: whom it names, and where it stands, from the sign on. */
export interface Mention {
  /** All who have the name. */
  readonly ids: readonly string[];
  readonly from: number;
  readonly to: number;
}

const isLetter = (char: string | undefined): boolean => char !== undefined && /[\p{L}\p{N}]/u.test(char);

/**
 * Who is mentioned in a text: `@` where a word begins, and a name behind it, in capitals or not. The longest name counts; a first name is
 * enough where only one person has it. So a mail address is none, and what names nobody stays as it is typed.
 */
export function mentionsIn(text: string, people: readonly Mentionable[]): Mention[] {
  const names = nameTable(people);
  const lower = text.toLowerCase();
  // In a few languages a small letter is longer than its capital: then places in one text are not those in the other.
  const searched = lower.length === text.length ? lower : text;
  const found: Mention[] = [];
  for (let from = text.indexOf('@'); from !== -1; from = text.indexOf('@', from + 1)) {
    if (isLetter(text[from - 1])) continue;
    const named = names.find(
      ({ name }) => searched.startsWith(name, from + 1) && !isLetter(text[from + 1 + name.length]),
    );
    if (named) found.push({ ids: named.ids, from, to: from + 1 + named.name.length });
  }
  return found;
}

/** Everybody who is mentioned, once. */
export const mentionedIn = (text: string, people: readonly Mentionable[]): string[] => [
  ...new Set(mentionsIn(text, people).flatMap(({ ids }) => ids)),
];

/** All names that reach somebody, the longest first. */
function nameTable(people: readonly Mentionable[]): { readonly name: string; readonly ids: readonly string[] }[] {
  const whole = new Map<string, string[]>();
  const first = new Map<string, string[]>();
  for (const { id, name } of people) {
    const lower = name.trim().toLowerCase();
    if (lower === '') continue;
    whole.set(lower, [...(whole.get(lower) ?? []), id]);
    const [given = ''] = lower.split(/\s/);
    first.set(given, [...(first.get(given) ?? []), id]);
  }
  for (const [name, ids] of first) if (ids.length === 1 && !whole.has(name)) whole.set(name, ids);
  return [...whole].map(([name, ids]) => ({ name, ids })).sort((a, b) => b.name.length - a.name.length);
}
