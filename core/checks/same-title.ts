import { foldedTitle } from '../derive/folded-title.ts';
import { textIn } from '../model/texts.ts';
import type { PageCheck } from './page-check.ts';

/** A page whose title another one has too: in a browser's tabs and among what is found they cannot be told apart (WCAG 2.2, 2.4.2). */
export const sameTitle: PageCheck = {
  called: 'Title used twice',
  words: (other) =>
    `${other === null ? 'Another page had its title.' : `Another page has the title ‘${other}’ too.`} In browser tabs and search results the two look the same.`,
  find: ({ site, derived: { outline }, read }) => {
    const rowsOf = new Map<string, number[]>();
    for (const row of read) {
      const title = foldedTitle(textIn(outline.nodes[row]!.title, site.settings.language));
      const rows = rowsOf.get(title);
      if (rows) rows.push(row);
      else rowsOf.set(title, [row]);
    }
    return [...rowsOf.values()].flatMap((rows) =>
      rows.length === 1
        ? []
        : rows.map((row) => ({ row, other: outline.nodes[row === rows[0] ? rows[1]! : rows[0]!]!.id })),
    );
  },
};
