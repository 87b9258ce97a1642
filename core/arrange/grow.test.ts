import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { readIndentedList, writeIndentedList } from '../formats/indented-list.ts';
import { outlineOf } from '../derive/outline.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { branchOf, childrenOf, maybeNodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { applyOperation, applyOperations } from '../operations/apply.ts';
import { removedWith } from '../operations/page-put-back.ts';
import { IDS, anySite, emptySite, plain, siteAfter } from '../testing/random-site.ts';
import { topmost } from './arrange.ts';
import { addList, carryTo, copyTo, putBackAlone } from './grow.ts';
import { placeOn } from './landing.ts';

const ids = () => {
  let count = 0;
  return (): PageId => toPageId(`n${count++}`);
};
const titled = (site: ReturnType<typeof emptySite>, id: PageId) => textIn(site.nodes.get(id)!.title, 'en');

describe('a list of titles', () => {
  it('becomes the branch that it shows, at its place and in its order', () => {
    const text = 'Courses\n\tShort\n\t\tKnots\n\t\tSplices\n\tLong\nVisit';
    const start = siteAfter([
      { name: 'page.add', page: toPageId('a'), place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: toPageId('z'), place: { parent: null }, title: { en: 'Legal' } },
    ]);
    const list = readIndentedList(text);
    if (!list.ok) throw new Error(list.why);
    const made = applyOperations(start, addList(list.entries, placeOn(start, toPageId('a'), 'after'), 'en', ids()));
    if (!made.ok) throw new Error(made.code);
    const outline = outlineOf(made.site);
    const written = writeIndentedList(
      outline.nodes.map((node, row) => ({ title: titled(made.site, node.id), depth: outline.depth[row]! })),
    );
    expect(written).toBe(`Home\n${text}\nLegal`);
  });
});

describe('copies', () => {
  it('stand after each other at the place, with the same titles, and leave the rest as it was', () => {
    holds(
      fc.property(anySite, fc.subarray([...IDS], { minLength: 1 }), fc.boolean(), (site, chosen, withBelow) => {
        const tops = topmost(site, chosen);
        const operations = copyTo(site, chosen, placeOn(site, null, 'after'), withBelow, ids());
        const made = applyOperations(site, operations);
        if (!made.ok) return void expect(made.code).toBe('too-deep');
        const copies = childrenOf(made.site, null).slice(childrenOf(site, null).length);
        expect(copies.map((id) => titled(made.site, id))).toEqual(tops.map((id) => titled(site, id)));
        tops.forEach((top, index) => {
          const branch = withBelow ? branchOf(site, top) : [top];
          const copied = branchOf(made.site, copies[index]!);
          expect(copied.map((id) => titled(made.site, id))).toEqual(branch.map((id) => titled(site, id)));
        });
        const back = applyOperations(made.site, made.inverse);
        expect(back.ok && plain(back.site)).toEqual(plain(site));
      }),
      { numRuns: 150 },
    );
  });
});

describe('a branch that is carried to another site', () => {
  it('brings all but links to pages that stay behind, and says so', () => {
    holds(
      fc.property(anySite, fc.subarray([...IDS], { minLength: 1 }), (source, chosen) => {
        const start = emptySite();
        const carried = carryTo(source, chosen, 'en', placeOn(start, null, 'after'), true, ids());
        const made = applyOperations(start, carried.operations);
        expect(made.ok || made.code).toBe(true);
        if (!made.ok) return;
        const taken = topmost(source, chosen).flatMap((id) => branchOf(source, id));
        const left = carried.left.filter((one) => one.why === 'link-target-stays').map((one) => one.page);
        expect(branchOf(made.site, null)).toHaveLength(taken.length - left.length);
        expect(branchOf(made.site, null).map((id) => titled(made.site, id))).toEqual(
          taken.filter((id) => !left.includes(id)).map((id) => titled(source, id)),
        );
        for (const id of left) {
          const { target } = source.nodes.get(id)!;
          expect(
            target && 'page' in target && taken.includes(target.page) && source.nodes.get(target.page)?.type === 'page',
          ).toBe(false);
        }
      }),
      { numRuns: 150 },
    );
  });
});

describe('a page whose slug is for the visitors’ side at the root', () => {
  it('comes along to a site where it would stand there, under a slug of its title', () => {
    const id = (name: string) => toPageId(name);
    const source = siteAfter([
      { name: 'page.add', page: id('home'), place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: id('a'), place: { parent: null }, title: { en: 'Courses' } },
      {
        name: 'page.add',
        page: id('b'),
        place: { parent: id('a') },
        title: { en: 'Find a course' },
        slug: { en: { text: 'search', own: true } },
      },
    ]);
    const start = emptySite();
    const { operations } = carryTo(source, [id('a')], 'en', placeOn(start, null, 'after'), true, ids());
    const made = applyOperations(start, operations);
    if (!made.ok) throw new Error(made.code);
    expect([...made.site.nodes.values()].map(({ slug }) => slug.en!.text)).toEqual(['courses', 'find-a-course']);
  });
});

describe('putting one page back alone', () => {
  it('brings that page and no other, and keeps the rest removed', () => {
    holds(
      fc.property(anySite, (site) => {
        const removed = [...site.nodes.values()].filter((node) => node.removedWith !== null);
        for (const { id } of removed) {
          const made = applyOperations(site, putBackAlone(site, id));
          if (!made.ok) continue;
          expect(maybeNodeAt(made.site, id)).toBeDefined();
          expect(branchOf(made.site, null)).toHaveLength(branchOf(site, null).length + 1);
          expect(made.site.nodes.size).toBe(site.nodes.size);
          const again = applyOperations(made.site, made.inverse);
          expect(again.ok && plain(again.site)).toEqual(plain(site));
        }
      }),
      { numRuns: 100 },
    );
  });
});

describe('deleting for good', () => {
  it('leaves nothing of the branch, and what was removed from below it can still be put back', () => {
    holds(
      fc.property(anySite, (site) => {
        for (const top of [...site.nodes.values()].filter((node) => node.removedWith === node.id)) {
          const gone = removedWith(site, top.id);
          const made = applyOperation(site, { name: 'page.erase', page: top.id });
          expect(made.ok || made.code).toBe(
            gone.some((id) => site.live.get(id)?.retired === false) ? 'still-live' : true,
          );
          if (!made.ok) continue;
          expect(made.site.nodes.size).toBe(site.nodes.size - gone.length);
          for (const other of [...made.site.nodes.values()].filter((node) => node.removedWith === node.id))
            expect(other.parent === null || !gone.includes(other.parent)).toBe(true);
        }
      }),
      { numRuns: 100 },
    );
  });
  it('waits while visitors still have the page', () => {
    const page = toPageId('a');
    const live = siteAfter([
      { name: 'page.add', page, place: { parent: null }, title: { en: 'News' } },
      { name: 'release.make', pages: [page], retire: [] },
      { name: 'page.remove', page },
    ] as Parameters<typeof siteAfter>[0]);
    expect(applyOperation(live, { name: 'page.erase', page })).toMatchObject({ ok: false, code: 'still-live' });
  });
});
