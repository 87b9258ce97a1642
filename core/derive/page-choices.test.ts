import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { textIn } from '../model/texts.ts';
import { holds } from '../testing/holds.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { outlineOf } from './outline.ts';
import { pageChoices } from './page-choices.ts';

const site = siteAfter(
  [
    ['a', 'All short courses', null],
    ['b', 'Evening courses', 'a'],
    ['c', 'Courses', 'b'],
    ['d', 'Courses abroad', null],
    ['e', 'Recourses', null],
  ].map(([page, title, parent]) => ({
    name: 'page.add' as const,
    page: toPageId(page!),
    place: { parent: parent === null ? null : toPageId(parent!) },
    title: { en: title! },
  })),
);
const outline = outlineOf(site);
const choose = (query: string, isOffered: (row: number, page: string) => boolean = () => true) => {
  const { rows, matches, best, isNear } = pageChoices(site, outline, query, isOffered);
  const id = (row: number) => outline.nodes[row]!.id;
  return { rows: rows.map(id), matches: [...matches].map(id), best: best === null ? null : id(best), isNear };
};

describe('choosing a page', () => {
  it('takes the title itself before all others', () => expect(choose('courses').best).toBe('c'));
  it('takes a title that begins so before one that holds it', () => expect(choose('courses a').best).toBe('d'));
  it('takes the beginning of a word before letters within one', () =>
    expect(choose('cours', (_, page) => page === 'a' || page === 'e').best).toBe('a'));
  it('shows what stands above as context, though it is not offered', () => {
    const { rows, matches } = choose('courses', (_, page) => page === 'c');
    expect({ rows, matches }).toEqual({ rows: ['a', 'b', 'c'], matches: ['c'] });
  });
  it('forgives a slip, and says so', () => expect(choose('evning')).toMatchObject({ best: 'b', isNear: true }));
  it('has no best one while nothing is typed', () => expect(choose(' ').best).toBeNull());
  it('never takes a page that is not offered', () => {
    holds(
      fc.property(anySite, fc.string({ maxLength: 3 }), fc.nat(), (any, query, mask) => {
        const of = outlineOf(any);
        const isOffered = (row: number) => ((mask >> (row % 20)) & 1) === 1;
        const { matches, best, rows } = pageChoices(any, of, query, isOffered);
        for (const row of matches) expect(isOffered(row)).toBe(true);
        if (best !== null) expect(matches.has(best)).toBe(true);
        // The title typed out as it is finds its page, where it is offered and has letters.
        const [first] = rows.filter((row) => matches.has(row));
        if (first === undefined) return;
        const title = textIn(of.nodes[first]!.title, any.settings.language);
        if (title.trim() !== '') expect(pageChoices(any, of, title, isOffered).matches.has(first)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
});
