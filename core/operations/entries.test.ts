import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { type ArrangedEntry, type EntryId, MAIN_MENU, MAX_LEVELS, entryOf } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const menu = MAIN_MENU.id;
const [courses, visit] = [toPageId('courses'), toPageId('visit')];
const entry = (name: string) => name as EntryId;
const words = (id: string, label: string, more: object = {}): Operation => ({
  name: 'entry.add',
  menu,
  entry: entry(id),
  label: { en: label },
  target: null,
  under: null,
  ...more,
});
const tree = siteAfter([
  { name: 'page.add', page: courses, place: { parent: null }, title: { en: 'Courses' } },
  { name: 'page.add', page: visit, place: { parent: null }, title: { en: 'Visit' } },
]);
const byHand = siteAfter(
  [
    {
      name: 'menu.set',
      menu,
      fields: { isByHand: true, arranged: { entries: [], settled: [] } },
    },
    words('first', 'First'),
    words('second', 'Second'),
    words('inner', 'Inner', { under: 'first' }),
  ],
  tree,
);
const refusal = (site: Site, operation: Operation) => {
  const outcome = applyOperation(site, operation);
  return outcome.ok ? 'made' : outcome.code;
};
const menuOf = ({ settings }: Site) => settings.menus.find(({ id }) => id === menu)!;
/** What was arranged, one level a pair of brackets. */
const arranged = (site: Site): string => {
  const told = (entries: readonly ArrangedEntry[]): string =>
    entries.map(({ label, below }) => textIn(label, 'en') + (below.length > 0 ? ` (${told(below)})` : '')).join(', ');
  return told(menuOf(site).arranged?.entries ?? []);
};

describe('an entry of a menu that is arranged by hand', () => {
  it('is put last, first, after another one, or below one', () => {
    const with3 = (more: object) => arranged(siteAfter([words('third', 'Third', more)], byHand));
    expect(with3({})).toBe('First (Inner), Second, Third');
    expect(with3({ after: null })).toBe('Third, First (Inner), Second');
    expect(with3({ after: 'first' })).toBe('First (Inner), Third, Second');
    expect(with3({ under: 'inner' })).toBe('First (Inner (Third)), Second');
  });

  it('moves with what is below it, and never into itself', () => {
    const move = (id: string, under: string | null, after?: string | null): Operation => ({
      name: 'entry.move',
      menu,
      entry: entry(id),
      under: under as EntryId | null,
      ...(after !== undefined && { after: after as EntryId | null }),
    });
    expect(arranged(siteAfter([move('first', 'second')], byHand))).toBe('Second (First (Inner))');
    expect(arranged(siteAfter([move('inner', null, null)], byHand))).toBe('Inner, First, Second');
    expect(refusal(byHand, move('first', 'inner'))).toBe('entry-inside-itself');
    expect(refusal(byHand, move('first', 'first'))).toBe('entry-inside-itself');
    expect(refusal(byHand, move('first', 'nowhere'))).toBe('entry-unknown');
    expect(refusal(byHand, move('nowhere', null))).toBe('entry-unknown');
    expect(refusal(tree, move('first', null))).toBe('entry-unknown');
  });

  it('goes no deeper than menus are drawn', () => {
    const deep = siteAfter(
      Array.from({ length: MAX_LEVELS - 2 }, (_, n) =>
        words(`deep${n}`, `Deep ${n}`, { under: n === 0 ? 'inner' : `deep${n - 1}` }),
      ),
      byHand,
    );
    expect(refusal(deep, words('below', 'Below', { under: `deep${MAX_LEVELS - 3}` }))).toBe('entry-too-deep');
  });

  it('is taken out with those below it, and comes back by undoing', () => {
    const outcome = applyOperation(byHand, { name: 'entry.remove', menu, entry: entry('first') });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(arranged(outcome.site)).toBe('Second');
    expect(arranged(siteAfter([...outcome.inverse], outcome.site))).toBe(arranged(byHand));
    expect(refusal(byHand, { name: 'entry.remove', menu, entry: entry('nowhere') })).toBe('entry-unknown');
  });

  it('is called and leads as it is told to', () => {
    const changed = siteAfter(
      [
        {
          name: 'entry.set',
          menu,
          entry: entry('second'),
          fields: { label: { en: 'Tides' }, target: { url: 'https://tides.example/' } },
        },
      ],
      byHand,
    );
    expect(menuOf(changed).arranged!.entries[1]).toMatchObject({
      label: { en: 'Tides' },
      target: { url: 'https://tides.example/' },
    });
    expect(refusal(byHand, { name: 'entry.set', menu, entry: entry('second'), fields: { label: { en: '' } } })).toBe(
      'entry-unnamed',
    );
  });
});

describe('an entry for a page', () => {
  const forPage = (id: string, page = courses): Operation => ({
    name: 'entry.add',
    menu,
    entry: entry(id),
    target: { page },
    under: null,
  });

  it('bears the page’s id, and needs no label', () => {
    expect(refusal(byHand, forPage(courses))).toBe('made');
    expect(refusal(byHand, forPage('other'))).toBe('page-unknown');
    expect(refusal(byHand, forPage('nowhere', toPageId('nowhere')))).toBe('page-unknown');
  });

  it('is there once, and no other entry takes its id', () => {
    const once = siteAfter([forPage(courses)], byHand);
    expect(refusal(once, forPage(courses))).toBe('entry-exists');
    expect(refusal(byHand, words(courses, 'Not the page'))).toBe('entry-exists');
  });
});

describe('a menu that follows the tree', () => {
  it('has entries besides, before or after what the tree gives', () => {
    const site = siteAfter([words('tides', 'Tides', { pin: 'first' }), words('shop', 'Shop')], tree);
    expect(menuOf(site).extras.map(({ id, pin }) => `${id} ${pin}`)).toEqual(['tides first', 'shop last']);
    expect(refusal(site, words('tides', 'Again'))).toBe('entry-exists');
    expect(refusal(tree, words('silent', ''))).toBe('entry-unnamed');
    const gone = siteAfter([{ name: 'entry.remove', menu, entry: entry('tides') }], site);
    expect(menuOf(gone).extras.map(({ id }) => id)).toEqual(['shop']);
  });

  it('keeps an exception for a page until nothing of it is otherwise', () => {
    const set = (fields: object): Operation => ({ name: 'entry.set', menu, entry: entryOf(visit), fields });
    const left = siteAfter([set({ isLeftOut: true }), set({ pin: 'first' })], tree);
    expect(menuOf(left).exceptions).toEqual([{ page: visit, label: {}, isLeftOut: true, pin: 'first', only: null }]);
    expect(menuOf(siteAfter([set({ isLeftOut: false, pin: null })], left)).exceptions).toEqual([]);
    expect(refusal(tree, { name: 'entry.set', menu, entry: entry('nowhere'), fields: { isLeftOut: true } })).toBe(
      'page-unknown',
    );
  });
});

it('what is done to entries is told in words, by the menu’s name', () => {
  expect(wordsOf(words('tides', 'Tides'), tree)).toBe('added the entry ‘Tides’ to the menu ‘Main’');
  expect(wordsOf({ name: 'entry.set', menu, entry: entryOf(visit), fields: { isLeftOut: true } }, tree)).toBe(
    'left an entry out of the menu ‘Main’',
  );
  expect(wordsOf({ name: 'entry.remove', menu, entry: entry('tides') }, tree)).toBe(
    'took an entry out of the menu ‘Main’',
  );
});

it('an entry of a menu that is not there is refused', () => {
  expect(refusal(tree, { ...words('tides', 'Tides'), menu: 'nowhere' } as Operation)).toBe('menu-unknown');
});
