import { foldedTitlesOf } from '../derive/folded-titles.ts';
import type { PageCheck } from './page-check.ts';

/** A page whose title another one has too: in a browser's tabs and among what is found they cannot be told apart (WCAG 2.2, 2.4.2). */
export const sameTitle: PageCheck = {
  called: 'Title used twice',
  words: (other) =>
    `${other === null ? 'Another page had its title.' : `Another page has the title ‘${other}’ too.`} In browser tabs and search results the two look the same.`,
  *find({ site, derived: { outline }, read }) {
    const titles = foldedTitlesOf(site);
    /** The first two rows with each title. */
    const rowsOf = new Map<string, { readonly first: number; second: number | null }>();
    for (const [at, row] of read.entries()) {
      if (at % 500 === 499) yield null;
      const rows = rowsOf.get(titles.at(row));
      if (!rows) rowsOf.set(titles.at(row), { first: row, second: null });
      else rows.second ??= row;
    }
    for (const [at, row] of read.entries()) {
      if (at % 500 === 499) yield null;
      const { first, second } = rowsOf.get(titles.at(row))!;
      if (second !== null) yield { row, other: outline.nodes[row === first ? second : first]!.id };
    }
  },
};
