import { heldBackRows } from '../derive/access.ts';
import { textIn } from '../model/texts.ts';
import { type PageCheck, rowsThatLack } from './page-check.ts';

/** A page that search engines show with words of their own choice, since nobody has said what it is about. */
export const noDescription: PageCheck = {
  called: 'No description',
  words: () => 'Search engines choose their own words for it. Describe it in the Write lens.',
  find: ({ site, derived: { outline }, read, isPublic }) => {
    const heldBack = heldBackRows(outline, site.settings, 'engines');
    return rowsThatLack(
      read,
      (row) =>
        isPublic(row) && heldBack[row] === -1 && textIn(outline.nodes[row]!.description, site.settings.language) === '',
    );
  },
};
