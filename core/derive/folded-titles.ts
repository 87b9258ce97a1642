import { textIn } from '../model/texts.ts';
import { folded } from './folded-title.ts';
import { textsOfRows } from './texts-of-rows.ts';

/** Titles with menu labels as they are looked through: without upper case and accents. */
export const foldedTitlesOf = textsOfRows(({ title, label }, language) => {
  const [name, short] = [textIn(title, language), textIn(label, language)];
  return folded(short === '' ? name : `${name} ${short}`);
});
