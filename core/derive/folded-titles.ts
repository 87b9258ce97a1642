import { textIn } from '../model/texts.ts';
import { folded } from './folded.ts';
import { textsOfRows } from './texts-of-rows.ts';

/** Titles as they are compared: without upper case and accents. */
export const foldedTitlesOf = textsOfRows(({ title }, language) => folded(textIn(title, language)));

/** Titles with menu labels, as they are looked through. */
export const foldedNamesOf = textsOfRows(({ title, label }, language) => {
  const [name, short] = [textIn(title, language), textIn(label, language)];
  return folded(short === '' ? name : `${name} ${short}`);
});
