import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PageId, toPageId } from '../model/ids.ts';
import { branchOf, nodeAt } from '../model/site.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { SHIPPED } from './shipped.ts';
import { type Starter, flatShells, isUsable, pagesOfStarter, starterOf, starterSchema } from './starter.ts';

const newIds = () => {
  let count = 0;
  return (): PageId => toPageId(`s${++count}`);
};
const all = (starter: Starter) => new Set(flatShells(starter).map((_, at) => at));
const top = { parent: null, after: null };
const begun = (starter: Starter, chosen = all(starter), titles = new Map<number, string>()) =>
  pagesOfStarter(starter, chosen, titles, top, 'en', newIds());
const titlesOf = (starter: Starter) =>
  flatShells(starter).map(({ shell, depth }) => `${' '.repeat(depth)}${shell.title}`);

describe('a starter', () => {
  it.each(Object.entries(SHIPPED))('that is shipped is sound, and begins a site: %s', (_, starter) => {
    expect(starterSchema.parse(starter)).toEqual(starter);
    expect(isUsable(starter)).toBe(true);
    const site = siteAfter(begun(starter).operations);
    expect(branchOf(site, null)).toHaveLength(flatShells(starter).length);
  });

  it('made of a site begins the same site again, but for links', () => {
    fc.assert(
      fc.property(anySite, (site) => {
        const starter = starterOf(site, null, 'Again', '', () => undefined);
        fc.pre(starter.pages.length > 0);
        const again = siteAfter(begun(starter).operations, emptySite());
        const texts = starterOf(again, null, 'Again', '', () => undefined);
        expect(titlesOf(texts)).toEqual(titlesOf(starter));
        expect(texts.pages.map(({ inMenus, purpose, label }) => [inMenus, purpose, label])).toEqual(
          starter.pages.map(({ inMenus, purpose, label }) => [inMenus, purpose, label]),
        );
      }),
      { numRuns: 100 },
    );
  });

  it('is taken in part, with pages renamed on the way; below what is left nothing is taken', () => {
    const starter = SHIPPED.organisation!;
    const flat = flatShells(starter);
    const at = (title: string) => flat.findIndex(({ shell }) => shell.title === title);
    const chosen = all(starter);
    chosen.delete(at('Who we are'));
    const { operations } = begun(starter, chosen, new Map([[at('Take part'), 'Join us']]));
    const titles = operations.map(({ title }) => title.en);
    expect(titles).toContain('Join us');
    expect(titles).not.toContain('History');
    const join = operations.find(({ title }) => title.en === 'Join us')!.page;
    expect(operations.find(({ title }) => title.en === 'Volunteer')!.place.parent).toBe(join);
  });

  it('brings the outline of a page’s sections as headings of its text', () => {
    const starter: Starter = { ...SHIPPED.school!, pages: [{ title: 'Apply', sections: ['Dates', 'Fees'] }] };
    const { operations, contents } = begun(starter);
    expect(operations[0]!.content).toBe(contents[0]!.id);
    const site = siteAfter(operations);
    const again = starterOf(site, branchOf(site, null)[0]!, 'x', '', () => contents[0]!.document);
    expect(again.pages[0]!.sections).toEqual(['Dates', 'Fees']);
    expect(nodeAt(site, branchOf(site, null)[0]!).content).toBe(contents[0]!.id);
  });

  it('refuses what is none', () => {
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [] }).success).toBe(false);
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [{ title: ' ' }] }).success).toBe(false);
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [{ title: 'A', script: 'x' }] }).success).toBe(false);
  });
});
