import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { AudienceId } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import { type EntryId, type Menu, entryOf, newMenu, toMenuId } from '../model/menu.ts';
import { type Site, makeSite } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import { IDS, anySite, anyStep, drawEdit, siteAfter } from '../testing/random-site.ts';
import { SlowReference } from '../testing/slow-reference.ts';
import { derivedOf } from './derived.ts';
import { type MenuEntry, entriesOf, numbersOf, sectionOf } from './menu.ts';
import { menuTable, menuTableOf } from './menu-table.ts';

const plainMenu: fc.Arbitrary<Menu> = fc
  .record({
    root: fc.oneof(fc.constantFrom('site' as const, 'section' as const), fc.record({ page: fc.constantFrom(...IDS) })),
    levels: fc.integer({ min: 1, max: 4 }),
    withRoot: fc.boolean(),
  })
  .map((fields) => ({ ...newMenu(toMenuId('test'), 'Test'), ...fields }));

interface Shape {
  readonly id: string;
  readonly below: readonly Shape[];
}
const shape = (entries: readonly MenuEntry[]): Shape[] =>
  entries.map(({ id, entries: below }) => ({ id, below: shape(below) }));

describe('a menu that follows the tree', () => {
  it('is the tree without what is off menus, hidden or too deep, if it has no exceptions', () => {
    holds(
      fc.property(anySite, plainMenu, fc.constantFrom(...IDS), (site, menu, page) => {
        const section = sectionOf(derivedOf(site), page);
        const slow = new SlowReference(site);
        expect(shape(entriesOf(site, menu, derivedOf(site), null, section))).toEqual(slow.menu(menu, section));
      }),
      { numRuns: 150 },
    );
  });

  it('answers for each page, and for each that is in it with the number that it is read by', () => {
    holds(
      fc.property(anySite, plainMenu, (site, menu) => {
        const table = menuTableOf(site, menu);
        derivedOf(site).outline.nodes.forEach((node, row) => {
          expect(table.answerAt(row) === 'in').toBe(table.numbers.has(entryOf(node.id)));
        });
        if (menu.root !== 'section') expect([...table.numbers]).toEqual([...numbersOf(entriesOf(site, menu))]);
      }),
      { numRuns: 150 },
    );
  });

  it('is after any edits what it is in a site that nothing is known of yet, in every order', () => {
    holds(
      fc.property(
        anySite,
        fc.array(fc.tuple(anyStep, fc.constantFrom('tree', 'alphabet', 'date')), { maxLength: 8, size: 'max' }),
        (start, steps) => {
          let site = start;
          for (const [step, order] of steps) {
            const outcome = applyOperation(site, drawEdit(site, step));
            if (outcome.ok) site = outcome.site;
            const menu: Menu = { ...newMenu(toMenuId('test'), 'Test'), levels: 4, order };
            const { key, settings, nodes, live, liveSettings } = site;
            const unknown = makeSite(key, settings, nodes.values(), live.values(), liveSettings, site);
            expect(entriesOf(site, menu)).toEqual(entriesOf(unknown, menu));
          }
        },
      ),
      { numRuns: 15 },
    );
  });

  it('is sorted anew where a page has another title, or another day', () => {
    const add = (id: string) =>
      ({ name: 'page.add', page: toPageId(id), place: { parent: null }, title: { en: id } }) as const;
    const start = siteAfter(['oars', 'lofting', 'sails'].map(add));
    const byName: Menu = { ...newMenu(toMenuId('test'), 'Test'), order: 'alphabet' };
    const ids = (site: Site, order: Menu['order']) => entriesOf(site, { ...byName, order }).map(({ page }) => page);
    expect([ids(start, 'alphabet'), ids(start, 'date')]).toEqual([
      ['lofting', 'oars', 'sails'],
      ['oars', 'lofting', 'sails'],
    ]);
    const page = toPageId('oars');
    const named = siteAfter([{ name: 'page.set', page, fields: { title: { en: 'Anchors' } } }], start);
    expect(ids(named, 'alphabet')).toEqual(['oars', 'lofting', 'sails']);
    const labelled = siteAfter([{ name: 'page.set', page, fields: { label: { en: 'Tillers' } } }], named);
    expect(ids(labelled, 'alphabet')).toEqual(['lofting', 'sails', 'oars']);
    const sails = toPageId('sails');
    const dated = siteAfter([{ name: 'page.set', page: sails, fields: { frame: { date: '2026-11-25' } } }], labelled);
    expect(ids(dated, 'date')).toEqual(['sails', 'oars', 'lofting']);
  });

  it('has the same pages in the order of the alphabet, if that is asked for', () => {
    holds(
      fc.property(anySite, plainMenu, (site, menu) => {
        const sorted = entriesOf(site, { ...menu, order: 'alphabet' });
        const ids = (entries: readonly MenuEntry[]): string[] =>
          entries.flatMap((one) => [one.id as string, ...ids(one.entries)]);
        expect(ids(sorted).sort()).toEqual(ids(entriesOf(site, menu)).sort());
        const check = (entries: readonly MenuEntry[]): void => {
          entries
            .slice(1)
            .forEach((one, index) =>
              expect(
                new Intl.Collator('en', { numeric: true }).compare(entries[index]!.text, one.text),
              ).toBeLessThanOrEqual(0),
            );
          for (const one of entries) check(one.entries);
        };
        check(sorted);
      }),
    );
  });
});

const [home, courses, short, evening, visit, group, deep] = [
  'home',
  'courses',
  'short',
  'evening',
  'visit',
  'group',
  'deep',
].map(toPageId) as [
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
];
const add = (page: typeof home, parent: typeof home | null, title: string, more: object = {}) =>
  ({ name: 'page.add', page, place: { parent }, title: { en: title }, ...more }) as const;
const site: Site = siteAfter([
  { name: 'audience.add', audience: 'staff' as AudienceId, title: 'Staff' },
  add(home, null, 'Home'),
  add(courses, null, 'Courses'),
  add(short, courses, 'Short courses'),
  add(evening, courses, 'Evening classes'),
  add(group, null, 'Good to know', { type: 'heading' }),
  add(visit, group, 'Visit us'),
  add(deep, visit, 'How to get here'),
]);
const main = { ...newMenu(toMenuId('test'), 'Test') };
const texts = (entries: readonly MenuEntry[]): unknown[] =>
  entries.map(({ text, entries: below }) => (below.length === 0 ? text : [text, ...texts(below)]));
const exception = (page: typeof home, more: object) => ({
  page,
  label: {},
  isLeftOut: false,
  pin: null,
  only: null,
  ...more,
});

describe('the exceptions of a menu', () => {
  it('are another label, one left out, and one pinned before or after the others', () => {
    const menu = {
      ...main,
      exceptions: [
        exception(courses, { label: { en: 'Learn' }, pin: 'last' as const }),
        exception(short, { isLeftOut: true }),
        exception(group, { pin: 'first' as const }),
      ],
    };
    expect(texts(entriesOf(site, menu))).toEqual([['Good to know', 'Visit us'], 'Home', ['Learn', 'Evening classes']]);
    expect(menuTableOf(site, menu).answerAt(derivedOf(site).outline.rowOf.get(short)!)).toBe('left out here');
  });

  it('are entries besides, that show to whom they are for and of use', () => {
    const extra = (id: string, more: object) => ({
      id: id as EntryId,
      label: { en: id },
      target: null,
      only: null,
      under: null,
      pin: 'last' as const,
      ...more,
    });
    const menu: Menu = {
      ...main,
      levels: 1,
      extras: [
        extra('shop', { target: { url: 'https://shop.example/' }, pin: 'first' }),
        extra('handbook', { target: { url: 'https://staff.example/' }, only: ['staff'] }),
        extra('in', { target: { does: 'sign-in' } }),
        extra('out', { target: { does: 'sign-out' } }),
        { ...extra(deep, { target: { page: deep } }), label: {} },
      ],
    };
    const forOne = (belongs: string[], isSignedIn: boolean) =>
      texts(entriesOf(site, menu, derivedOf(site), { belongs: new Set(belongs as AudienceId[]), isSignedIn }));
    const tree = ['Home', 'Courses', 'Good to know'];
    expect(forOne(['everyone'], false)).toEqual(['shop', ...tree, 'in', 'How to get here']);
    expect(forOne(['everyone', 'staff'], true)).toEqual(['shop', ...tree, 'handbook', 'out', 'How to get here']);
  });

  it('show a page from elsewhere once, when the tree brings it too', () => {
    const extra = {
      id: entryOf(short),
      label: { en: 'Short' },
      target: { page: short },
      only: null,
      under: null,
      pin: 'last' as const,
    };
    expect(texts(entriesOf(site, { ...main, levels: 1, extras: [extra] }))).toEqual([
      'Home',
      'Courses',
      'Good to know',
      'Short',
    ]);
    expect(JSON.stringify(texts(entriesOf(site, { ...main, extras: [extra] }))).match(/Short/g)).toEqual(['Short']);
  });

  it('leave out a link to what is no page any more, as a menu that was arranged by hand does', () => {
    const alias = toPageId('alias');
    const linked = siteAfter([add(alias, null, 'Times', { type: 'link', target: { page: deep } })], site);
    expect(entriesOf(linked, main).map(({ text }) => text)).toContain('Times');
    const astray = siteAfter([{ name: 'page.set', page: deep, fields: { type: 'heading' } }], linked);
    expect(entriesOf(astray, main).map(({ text }) => text)).not.toContain('Times');
  });

  it('let a heading lead to the first page below it', () => {
    const entry = (menu: Menu) => entriesOf(site, menu).find(({ page }) => page === group)!.leadsTo;
    expect(entry(main)).toBeNull();
    expect(entry({ ...main, headings: 'first page' })).toBe('/visit-us');
  });
});

describe('a menu of the section that the visitor is in', () => {
  it('differs from section to section, and has the pages of the visitor’s', () => {
    const menu = { ...main, root: 'section' as const, withRoot: true };
    const derived = derivedOf(site);
    const of = (page: typeof home) => texts(entriesOf(site, menu, derived, null, sectionOf(derived, page)));
    expect(of(evening)).toEqual([['Courses', 'Short courses', 'Evening classes']]);
    expect(of(deep)).toEqual([['Good to know', ['Visit us', 'How to get here']]]);
    expect(texts(entriesOf(site, menu, derived, null, null))).toEqual([]);
  });
});

describe('a menu arranged by hand', () => {
  it('leaves out what a visitor cannot reach, and words under which nothing is left', () => {
    const hidden = siteAfter([{ name: 'page.set', page: visit, fields: { hidden: 'branch' } }], site);
    const entry = (id: string, target: unknown, below: unknown[] = []) =>
      ({ id, label: target === null ? { en: id } : {}, target, only: null, below }) as never;
    const menu: Menu = {
      ...main,
      isByHand: true,
      arranged: {
        entries: [
          entry('Words', null, [entry(visit, { page: visit })]),
          entry(short, { page: short }, [entry(courses, { page: courses })]),
        ],
        settled: [],
      },
    };
    expect(texts(entriesOf(site, menu))).toEqual([
      ['Words', 'Visit us'],
      ['Short courses', 'Courses'],
    ]);
    expect(texts(entriesOf(hidden, menu))).toEqual([['Short courses', 'Courses']]);
    const table = menuTable(hidden, menu, derivedOf(hidden), null);
    expect(table.answerAt(derivedOf(hidden).outline.rowOf.get(visit)!)).toBe('hidden');
  });
});
