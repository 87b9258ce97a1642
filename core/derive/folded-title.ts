/** Text without upper case and accents, for finding. */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

const foldedTitles = new Map<string, string>();
const MAX_FOLDED = 200_000;

/** A title, with a menu label if there is one, as `folded` makes it. Folding is dear and titles are many: each is folded once. */
export function foldedTitle(title: string, label = ''): string {
  const text = label === '' ? title : `${title} ${label}`;
  let made = foldedTitles.get(text);
  if (made === undefined) {
    if (foldedTitles.size >= MAX_FOLDED) foldedTitles.clear();
    foldedTitles.set(text, (made = folded(text)));
  }
  return made;
}
