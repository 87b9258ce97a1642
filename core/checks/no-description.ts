import { heldBackRows } from '../derive/access.ts';
import { textIn } from '../model/texts.ts';
import type { PageCheck } from './page-check.ts';

/** A page that search engines show with words of their own choice, since nobody has said what it is about. */
export const noDescription: PageCheck = {
  called: 'No description',
  words: () => 'Search engines choose their own words for it. Describe it in the Write lens.',
  find: ({ site, derived: { outline }, read, isPublic }) => {
    const heldBack = heldBackRows(outline, site.settings, 'engines');
    return read.flatMap((row) => {
      const isShown = isPublic(row) && heldBack[row] === -1;
      return isShown && textIn(outline.nodes[row]!.description, site.settings.language) === '' ? [{ row }] : [];
    });
  },
};
