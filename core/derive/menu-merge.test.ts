import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { PageId } from '../model/ids.ts';
import { type ArrangedEntry, type Arrangement, type Menu, allEntries, entryOf, toMenuId } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { arrangeByHand, followTree } from '../arrange/switch-menu.ts';
import { entriesOf } from './menu.ts';
import { type Proposal, arrangedNow, declining, settledNow, taking } from './menu-merge.ts';

const MENU = toMenuId('main');
const menuOf = (site: Site): Menu => site.settings.menus.find(({ id }) => id === MENU)!;
const entryIds = [...IDS.map(entryOf), 'e1', 'e2'] as ReturnType<typeof entryOf>[];
const entry = fc.constantFrom(...entryIds);

/** What a person does to a menu that is arranged by hand. */
const anyGesture: fc.Arbitrary<Operation> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      name: fc.constant('entry.move' as const),
      menu: fc.constant(MENU),
      entry,
      under: fc.option(entry, { nil: null }),
      after: fc.option(fc.option(entry, { nil: null }), { nil: undefined }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ name: fc.constant('entry.remove' as const), menu: fc.constant(MENU), entry }) },
  {
    weight: 1,
    arbitrary: fc.record({
      name: fc.constant('entry.set' as const),
      menu: fc.constant(MENU),
      entry,
      fields: fc.record({ label: fc.record({ en: fc.constantFrom('Own words', '') }) }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      name: fc.constant('entry.add' as const),
      menu: fc.constant(MENU),
      entry: fc.constantFrom(...(['e1', 'e2'] as ReturnType<typeof entryOf>[])),
      label: fc.constant({ en: 'Words' }),
      target: fc.constant(null),
      under: fc.option(entry, { nil: null }),
    }),
  },
);

const applied = (site: Site, operation: Operation): Site => {
  const outcome = applyOperation(site, operation);
  if (!outcome.ok) throw new Error(`${operation.name} was refused: ${outcome.code}`);
  return outcome.site;
};

const page = fc.constantFrom(...IDS);
const place = fc.record({
  parent: fc.option(page, { nil: null, freq: 2 }),
  after: fc.option(fc.option(page, { nil: null }), { nil: undefined }),
});
const addAt = (id: PageId, at: { parent: PageId | null }): Operation => ({
  name: 'page.add',
  page: id,
  place: at,
  title: { en: `Page ${id}` },
});
/** What happens in the tree meanwhile. */
const anyTreeEdit: fc.Arbitrary<Operation> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ name: fc.constant('page.move' as const), page, place }) },
  { weight: 3, arbitrary: fc.tuple(page, place).map(([id, at]) => addAt(id, at)) },
  {
    weight: 3,
    arbitrary: fc.record({
      name: fc.constant('page.set' as const),
      page,
      fields: fc.oneof(
        fc.record({ inMenus: fc.boolean() }),
        fc.record({ hidden: fc.constantFrom('no' as const, 'branch' as const) }),
        fc.record({ title: fc.record({ en: fc.constantFrom('One name', 'Another name') }) }),
      ),
    }),
  },
  { weight: 1, arbitrary: fc.record({ name: fc.constant('page.remove' as const), page }) },
  { weight: 1, arbitrary: fc.record({ name: fc.constant('page.putBack' as const), page }) },
);

/** A site with a menu arranged by hand that was changed by hand, and whose tree was changed since. */
const anyMerge: fc.Arbitrary<Site> = fc
  .tuple(
    fc.array(fc.tuple(page, place), { minLength: 8, maxLength: 30, size: 'max' }),
    fc.record({
      levels: fc.integer({ min: 1, max: 4 }),
      root: fc.oneof({ weight: 5, arbitrary: fc.constant('site' as const) }, fc.record({ page })),
      withRoot: fc.boolean(),
    }),
    fc.array(anyGesture, { maxLength: 8 }),
    fc.array(anyTreeEdit, { maxLength: 12 }),
  )
  .map(([pages, fields, gestures, edits]) => {
    const tree = siteAfter(pages.map(([id, at]) => addAt(id, at)));
    const start = siteAfter([{ name: 'menu.set', menu: MENU, fields }], tree);
    const byHand = applied(start, arrangeByHand(start, menuOf(start)));
    return siteAfter(edits, siteAfter(gestures, byHand));
  });

const settled = (site: Site, arranged: Arrangement): Site =>
  applied(site, { name: 'menu.set', menu: MENU, fields: { arranged: arranged as never } });
const proposalsOf = (site: Site) => arrangedNow(site, menuOf(site)).proposals;
const takeAll = (site: Site): Site => settled(site, taking(site, menuOf(site), proposalsOf(site)));
const shapeOf = (entries: readonly ArrangedEntry[]): unknown => entries.map(({ id, below }) => [id, shapeOf(below)]);
const takeOne = (site: Site, { page, kind }: Proposal): Site =>
  settled(site, taking(site, menuOf(site), [{ page, kind }]));

describe('a menu arranged by hand, beside the tree', () => {
  it('proposes nothing while the tree stays as it was', () => {
    holds(
      fc.property(anySite, fc.array(anyGesture, { maxLength: 10 }), (site, gestures) => {
        if (!menuOf(site) || menuOf(site).isByHand) return;
        const byHand = siteAfter(gestures, applied(site, arrangeByHand(site, menuOf(site))));
        expect(proposalsOf(byHand)).toEqual([]);
      }),
    );
  });

  it('has each page of its range once when all is taken, but for those that were taken out by hand, and proposes nothing more', () => {
    holds(
      fc.property(anyMerge, (site) => {
        const known = new Set(arrangedNow(site, menuOf(site)).settled.map(({ page }) => page));
        const there = new Set([...allEntries(arrangedNow(site, menuOf(site)).entries)].map(({ id }) => id));
        const proposed = new Set(
          proposalsOf(site)
            .filter(({ kind }) => kind === 'came')
            .map(({ page }) => page),
        );
        const all = takeAll(site);
        expect(proposalsOf(all)).toEqual([]);
        const entries = [...allEntries(arrangedNow(all, menuOf(all)).entries)].map(({ id }) => id as string);
        expect(new Set(entries).size).toBe(entries.length);
        for (const { page } of settledNow(all, menuOf(all))) {
          const wasTakenOut = known.has(page) && !there.has(entryOf(page)) && !proposed.has(page);
          expect(entries.includes(page)).toBe(!wasTakenOut);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('ends at the same, in whatever order proposals are taken one by one', () => {
    holds(
      fc.property(anyMerge, fc.infiniteStream(fc.nat()), (site, chance) => {
        const all = takeAll(site);
        let at = site;
        for (let step = 0; proposalsOf(at).length > 0; step++) {
          if (step > 60) throw new Error('It does not come to an end.');
          const left = proposalsOf(at);
          at = takeOne(at, left[chance.next().value! % left.length]!);
        }
        expect(shapeOf(menuOf(at).arranged!.entries)).toEqual(shapeOf(menuOf(all).arranged!.entries));
      }),
      { numRuns: 150 },
    );
  });

  it('does not bring back what was declined, until its page changes again', () => {
    holds(
      fc.property(anyMerge, fc.nat(), (site, chance) => {
        const before = proposalsOf(site);
        if (before.length === 0) return;
        const { page, kind } = before[chance % before.length]!;
        const after = settled(site, declining(site, menuOf(site), [{ page, kind }]));
        expect(proposalsOf(after).filter((one) => one.page === page && one.kind === kind)).toEqual([]);
        expect(shapeOf(menuOf(after).arranged!.entries)).toEqual(shapeOf(arrangedNow(site, menuOf(site)).entries));
      }),
      { numRuns: 150 },
    );
  });

  it('takes what is safe by itself where it is set to', () => {
    holds(
      fc.property(anyMerge, (site) => {
        const safe = proposalsOf(site).filter(({ isSafe }) => isSafe);
        const itself = applied(site, { name: 'menu.set', menu: MENU, fields: { takesSafe: true } });
        const byHand = settled(site, taking(site, menuOf(site), safe));
        expect(entriesOf(itself, menuOf(itself))).toEqual(entriesOf(byHand, menuOf(byHand)));
      }),
    );
  });

  it('is as it was after following the tree and going back', () => {
    holds(
      fc.property(anyMerge, (site) => {
        const there = applied(site, followTree(site, menuOf(site)).operation);
        const back = applied(there, arrangeByHand(there, menuOf(there)));
        expect(entriesOf(back, menuOf(back))).toEqual(entriesOf(site, menuOf(site)));
        expect(menuOf(back).arranged?.entries).toEqual(menuOf(site).arranged?.entries);
      }),
      { numRuns: 150 },
    );
  });
});

describe('a menu that follows the tree', () => {
  it('is as it was after being arranged by hand and going back', () => {
    holds(
      fc.property(anySite, (site) => {
        const menu = menuOf(site);
        if (!menu || menu.isByHand || menu.arranged !== null) return;
        const there = applied(site, arrangeByHand(site, menu));
        expect(entriesOf(there, menuOf(there)).map(({ text }) => text)).toEqual(
          menu.root === 'section' ? expect.anything() : entriesOf(site, menu).map(({ text }) => text),
        );
        const back = applied(there, followTree(there, menuOf(there)).operation);
        expect(menuOf(back)).toEqual({ ...menu, arranged: null });
      }),
      { numRuns: 150 },
    );
  });
});

describe('what is proposed', () => {
  const ids = ['home', 'courses', 'short', 'evening', 'visit'] as PageId[];
  const [home, courses, short, evening, visit] = ids as [PageId, PageId, PageId, PageId, PageId];
  const add = (page: PageId, parent: PageId | null, after?: PageId): Operation => ({
    name: 'page.add',
    page,
    place: { parent, ...(after !== undefined && { after }) },
    title: { en: page },
  });
  const start = siteAfter([add(home, null), add(courses, null), add(short, courses), add(visit, null)]);
  const byHand = applied(start, arrangeByHand(start, menuOf(start)));

  it('is a new page, with the place that the tree has for it', () => {
    const after = siteAfter([add(evening, courses, short)], byHand);
    expect(proposalsOf(after)).toEqual([
      {
        page: evening,
        kind: 'came',
        isSafe: true,
        under: courses,
        after: short,
        along: null,
        because: null,
        name: 'evening',
      },
    ]);
  });

  it('is a whole branch, page by page: the ones below come in with the one above', () => {
    const after = siteAfter(
      [add(evening, null), { name: 'page.move', page: short, place: { parent: evening } }],
      byHand,
    );
    const made = siteAfter([add('late' as PageId, evening)], after);
    const deeper = proposalsOf(made).find(({ page }) => page === 'late')!;
    expect(deeper).toMatchObject({ kind: 'came', along: evening });
    const taken = takeOne(made, deeper);
    expect(shapeOf(menuOf(taken).arranged!.entries)).toContainEqual([evening, [['late', []]]]);
  });

  it('is a page that moved: safe where the menu had it as the tree did, and not where it was arranged otherwise', () => {
    const move: Operation = { name: 'page.move', page: short, place: { parent: visit } };
    expect(proposalsOf(siteAfter([move], byHand))).toMatchObject([
      { page: short, kind: 'moved', isSafe: true, under: visit },
    ]);
    const elsewhere = siteAfter(
      [{ name: 'entry.move', menu: MENU, entry: entryOf(short), under: entryOf(home) }],
      byHand,
    );
    expect(proposalsOf(siteAfter([move], elsewhere))).toMatchObject([{ page: short, kind: 'moved', isSafe: false }]);
  });

  it('is a page that went, with the reason', () => {
    const edits: [Operation, string][] = [
      [{ name: 'page.remove', page: short }, 'removed'],
      [{ name: 'page.set', page: short, fields: { inMenus: false } }, 'off menus'],
      [{ name: 'page.set', page: courses, fields: { hidden: 'branch' } }, 'hidden'],
      [{ name: 'page.set', page: short, fields: { access: { standsIn: 'not-found' } } }, 'when needed'],
    ];
    for (const [edit, because] of edits)
      expect(proposalsOf(siteAfter([edit], byHand))).toContainEqual(
        expect.objectContaining({ page: short, kind: 'went', because, isSafe: true }),
      );
  });

  it('is another name only where the entry has words of its own', () => {
    const rename: Operation = { name: 'page.set', page: visit, fields: { title: { en: 'Come and see' } } };
    expect(proposalsOf(siteAfter([rename], byHand))).toEqual([]);
    const named = siteAfter(
      [{ name: 'entry.set', menu: MENU, entry: entryOf(visit), fields: { label: { en: 'Visits' } } }],
      byHand,
    );
    expect(proposalsOf(siteAfter([rename], named))).toMatchObject([
      { page: visit, kind: 'renamed', name: 'Come and see', isSafe: false },
    ]);
  });
});
