import { describe, expect, it } from 'vitest';
import { derivedOf } from '../derive/derived.ts';
import { type ContentId, type PageId, toPageId } from '../model/ids.ts';
import { MAX_DEPTH, type Site, branchOf, childrenOf, newSettings, nodeAt } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations, cellsOf, checkTogether, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';
import { nearestParent } from './page-put-back.ts';

const id = toPageId;
type Add = Extract<Operation, { name: 'page.add' }>;
const add = (page: string, title: string, parent: string | null = null, more: Partial<Add> = {}): Add => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
  ...more,
});
const set = (page: string, fields: Extract<Operation, { name: 'page.set' }>['fields']): Operation => ({
  name: 'page.set',
  page: id(page),
  fields,
});
const move = (page: string, parent: string | null, after?: string | null): Operation => ({
  name: 'page.move',
  page: id(page),
  place: {
    parent: parent === null ? null : id(parent),
    after: after === undefined ? undefined : after === null ? null : id(after),
  },
});
const remove = (page: string): Operation => ({ name: 'page.remove', page: id(page) });
const putBack = (page: string): Operation => ({ name: 'page.putBack', page: id(page) });

const start = siteAfter([
  add('home', 'Home'),
  add('courses', 'Courses'),
  add('short', 'Short', 'courses'),
  add('long', 'Long', 'courses'),
  add('visit', 'Visit'),
  add('tides', 'Tides', null, { type: 'link', target: { url: 'https://tides.example/' } }),
]);
const refusal = (operation: Operation, site: Site = start): string => {
  const outcome = applyOperation(site, operation);
  return outcome.ok ? 'taken' : outcome.code;
};
const order = (site: Site, parent: string | null): PageId[] => [
  ...childrenOf(site, parent === null ? null : id(parent)),
];
const addressOf = (site: Site, page: string): string | null => {
  const { outline, addresses } = derivedOf(site);
  return addresses[outline.rowOf.get(id(page))!]!;
};

describe('page.add', () => {
  it('puts the page first, after a sibling, or last', () => {
    expect(
      order(siteAfter([add('x', 'X', 'courses', { place: { parent: id('courses'), after: null } })], start), 'courses'),
    ).toEqual(['x', 'short', 'long']);
    expect(
      order(
        siteAfter([add('x', 'X', 'courses', { place: { parent: id('courses'), after: id('short') } })], start),
        'courses',
      ),
    ).toEqual(['short', 'x', 'long']);
    expect(order(siteAfter([add('x', 'X', 'courses')], start), 'courses')).toEqual(['short', 'long', 'x']);
  });
  it('takes the last place where the sibling it was to follow is gone', () =>
    expect(
      order(
        siteAfter([add('x', 'X', 'courses', { place: { parent: id('courses'), after: id('visit') } })], start),
        'courses',
      ),
    ).toEqual(['short', 'long', 'x']));
  it('makes a page that is in menus, shown, and without text unless told otherwise', () =>
    expect(nodeAt(siteAfter([add('x', '  Two   words ')], start), id('x'))).toMatchObject({
      type: 'page',
      title: { en: 'Two words' },
      inMenus: true,
      hidden: 'no',
      inAddress: true,
      content: null,
    }));
  it('makes a heading that adds no step to addresses unless told so', () => {
    const site = siteAfter([add('h', 'Good to know', null, { type: 'heading' }), add('x', 'Places', 'h')], start);
    expect(addressOf(site, 'x')).toBe('/places');
    const withStep = siteAfter(
      [add('h', 'Good to know', null, { type: 'heading', inAddress: true }), add('x', 'Places', 'h')],
      start,
    );
    expect(addressOf(withStep, 'x')).toBe('/good-to-know/places');
  });
  it.each<[string, Operation, string]>([
    ['an id that is taken', add('home', 'Home'), 'page-exists'],
    ['an unknown parent', add('x', 'X', 'nowhere'), 'parent-unknown'],
    ['a link as parent', add('x', 'X', 'tides'), 'parent-is-link'],
    ['a title of spaces', add('x', '   '), 'title-empty'],
    ['a link without a target', add('x', 'X', null, { type: 'link' }), 'target-missing'],
    [
      'a link to a page that is not there',
      add('x', 'X', null, { type: 'link', target: { page: id('nowhere') } }),
      'target-unknown',
    ],
    ['a link to a link', add('x', 'X', null, { type: 'link', target: { page: id('tides') } }), 'target-unknown'],
    ['a page with a target', add('x', 'X', null, { target: { url: 'https://x.example/' } }), 'target-not-for-this'],
    ['a heading with text', add('x', 'X', null, { type: 'heading', content: 'aaaaaaaaaaaa' as ContentId }), 'has-text'],
  ])('refuses %s', (_, operation, code) => expect(refusal(operation)).toBe(code));
  it('refuses a level below the deepest', () => {
    let site = siteAfter([add('d0', 'D')]);
    for (let depth = 1; depth < MAX_DEPTH; depth++) site = siteAfter([add(`d${depth}`, 'D', `d${depth - 1}`)], site);
    expect(branchOf(site, null)).toHaveLength(MAX_DEPTH);
    expect(refusal(add('x', 'X', `d${MAX_DEPTH - 1}`), site)).toBe('too-deep');
    expect(refusal(move('d1', 'd0'), site)).toBe('taken');
    const beside = siteAfter([add('y', 'Y'), add('y1', 'Y', 'y')], site);
    expect(refusal(move('y', `d${MAX_DEPTH - 2}`), beside)).toBe('too-deep');
  });
});

describe('page.move', () => {
  it('takes the branch along, with its addresses', () => {
    const site = siteAfter([move('courses', 'visit')], start);
    expect(addressOf(site, 'short')).toBe('/visit/courses/short');
  });
  it('writes one node, whatever the number of siblings', () => {
    const outcome = applyOperation(start, move('long', 'courses', null));
    expect(outcome).toMatchObject({ ok: true, touched: ['long'] });
  });
  it('gives the same site where the page stands there already', () => {
    const outcome = applyOperation(start, {
      name: 'page.move',
      page: id('long'),
      place: { parent: id('courses'), order: nodeAt(start, id('long')).order },
    });
    expect(outcome.ok && outcome.site).toBe(start);
  });
  it.each<[string, Operation, string]>([
    ['into itself', move('courses', 'courses'), 'moved-inside-itself'],
    ['into its own branch', move('courses', 'short'), 'moved-inside-itself'],
    ['under a link', move('visit', 'tides'), 'parent-is-link'],
    ['of a page that is not there', move('nowhere', null), 'page-unknown'],
    ['under a page that is not there', move('visit', 'nowhere'), 'parent-unknown'],
  ])('refuses to move %s', (_, operation, code) => expect(refusal(operation)).toBe(code));
  it('settles two pages that come to the same place with equal order keys', () => {
    const key = nodeAt(start, id('short')).order;
    const site = siteAfter(
      [{ name: 'page.move', page: id('visit'), place: { parent: id('courses'), order: key } }],
      start,
    );
    expect(order(site, 'courses')).toEqual(['short', 'visit', 'long']);
  });
});

describe('page.set', () => {
  it('sets what is given and leaves the rest', () => {
    const site = siteAfter([set('courses', { label: { en: 'Learn' }, hidden: 'branch' })], start);
    expect(nodeAt(site, id('courses'))).toMatchObject({
      title: { en: 'Courses' },
      label: { en: 'Learn' },
      hidden: 'branch',
      inMenus: true,
    });
  });
  it('takes a label away by an empty text', () => {
    const site = siteAfter([set('courses', { label: { en: 'Learn' } }), set('courses', { label: { en: '' } })], start);
    expect(nodeAt(site, id('courses')).label).toEqual({});
  });
  it('gives the same site where nothing differs', () => {
    const outcome = applyOperation(start, set('courses', { title: { en: ' Courses ' }, inMenus: true }));
    expect(outcome.ok && outcome.site).toBe(start);
    expect(outcome).toMatchObject({ inverse: [], touched: [] });
  });
  it('makes a heading of a page and settles the addresses of those below', () => {
    const site = siteAfter([add('other', 'Short'), set('courses', { type: 'heading' })], start);
    expect(addressOf(site, 'other')).toBe('/short');
    expect(addressOf(site, 'short')).toBe('/short-2');
    expect(addressOf(site, 'courses')).toBeNull();
  });
  it.each<[string, Operation, string]>([
    [
      'a link of a page with pages below',
      set('courses', { type: 'link', target: { url: 'https://x.example/' } }),
      'pages-below',
    ],
    ['a title away', set('courses', { title: { en: '' } }), 'title-empty'],
    ['a target for a page', set('courses', { target: { url: 'https://x.example/' } }), 'target-not-for-this'],
    ['the target of a link away', set('tides', { target: null }), 'target-missing'],
    ['a link to itself', set('tides', { target: { page: id('tides') } }), 'target-unknown'],
    ['a reserved slug', set('courses', { slug: { en: { text: 'sitemap.xml', own: true } } }), 'slug-reserved'],
    ['a slug with a slash', set('courses', { slug: { en: { text: 'a/b', own: true } } }), 'slug-shape'],
    ['anything of a page that is not there', set('nowhere', { inMenus: true }), 'page-unknown'],
  ])('refuses to make %s', (_, operation, code) => expect(refusal(operation)).toBe(code));
});

describe('page.remove and page.putBack', () => {
  it('take the branch out and put it back where it was', () => {
    const without = siteAfter([remove('courses')], start);
    expect(order(without, null)).toEqual(['home', 'visit', 'tides']);
    expect(order(siteAfter([putBack('courses')], without), null)).toEqual(['home', 'courses', 'visit', 'tides']);
  });
  it('leave what was removed before to its own removal', () => {
    const site = siteAfter([remove('short'), remove('courses'), putBack('courses')], start);
    expect(order(site, 'courses')).toEqual(['long']);
    expect(order(siteAfter([putBack('short')], site), 'courses')).toEqual(['short', 'long']);
  });
  it('put a page under the nearest ancestor that is there, where its parent is gone', () => {
    const site = siteAfter([add('deep', 'Deep', 'short'), remove('deep'), remove('short')], start);
    expect(nearestParent(site, id('deep'))).toBe('courses');
    expect(nodeAt(siteAfter([putBack('deep')], site), id('deep')).parent).toBe('courses');
  });
  it('settle an address that somebody else took meanwhile', () => {
    const site = siteAfter([remove('visit'), add('new', 'Visit'), putBack('visit')], start);
    expect([addressOf(site, 'new'), addressOf(site, 'visit')]).toEqual(['/visit', '/visit-2']);
  });
  it('refuse what is not there, what was removed already, and what was not removed by itself', () => {
    const site = siteAfter([remove('courses')], start);
    expect(refusal(remove('courses'), site)).toBe('page-removed');
    expect(refusal(set('short', { inMenus: false }), site)).toBe('page-removed');
    expect(refusal(putBack('short'), site)).toBe('page-not-removed');
    expect(refusal(putBack('visit'), site)).toBe('page-not-removed');
    expect(refusal(putBack('nowhere'), site)).toBe('page-unknown');
  });
  it('for good, refuse while pages stand below', () => {
    expect(refusal({ name: 'page.remove', page: id('courses'), forGood: true })).toBe('pages-below');
    const site = siteAfter([{ name: 'page.remove', page: id('visit'), forGood: true }], start);
    expect(site.nodes.has(id('visit'))).toBe(false);
  });
});

describe('site.set', () => {
  it('names a page as home, wherever it stands, and lets the first page be home again', () => {
    const site = siteAfter([{ name: 'site.set', fields: { home: id('short') } }], start);
    expect([addressOf(site, 'short'), addressOf(site, 'home')]).toEqual(['/', '/home']);
    expect(addressOf(siteAfter([{ name: 'site.set', fields: { home: null } }], site), 'home')).toBe('/');
  });
  it.each<[string, Operation, string]>([
    ['a link as home', { name: 'site.set', fields: { home: id('tides') } }, 'home-not-a-page'],
    ['a page that is not there as home', { name: 'site.set', fields: { home: id('nowhere') } }, 'page-unknown'],
    ['an empty name', { name: 'site.set', fields: { name: '  ' } }, 'name-empty'],
  ])('refuses %s', (_, operation, code) => expect(refusal(operation)).toBe(code));
  it('names one home in one request', () => {
    const homes = (...pages: string[]): Operation[] =>
      pages.map((page) => ({ name: 'site.set', fields: { home: id(page) } }));
    expect(checkTogether(homes('home', 'visit'))).toMatchObject({ code: 'two-homes' });
    expect(checkTogether(homes('visit', 'visit'))).toBeNull();
  });
});

describe('release.make', () => {
  const make = (pages: string[], retire: string[] = []): Operation => ({
    name: 'release.make',
    pages: pages.map(id),
    retire: retire.map(id),
  });
  it.each<[string, Operation[], string]>([
    ['a page whose parent is not live', [make(['short'])], 'parent-not-live'],
    ['a parent down from under a live page', [make(['courses', 'short']), make([], ['courses'])], 'parent-not-live'],
    ['a page down that is not live', [make([], ['visit'])], 'not-live'],
    ['a page that was removed', [remove('visit'), make(['visit'])], 'page-removed'],
  ])('refuses to take %s', (_, operations, code) =>
    expect(applyOperations(start, operations)).toMatchObject({ ok: false, code }),
  );
  it('fixes the home page that visitors have', () => {
    const outcome = applyOperation(start, make(['home', 'visit']));
    expect(outcome.ok && outcome.site.liveSettings).toEqual({ ...newSettings('Test site', 'en'), home: 'home' });
  });
});

describe('the words of an operation', () => {
  it.each<[Operation, string]>([
    [add('x', 'Apply'), 'added the page ‘Apply’ at the top level'],
    [add('x', 'Apply', 'courses', { type: 'heading' }), 'added the heading ‘Apply’ in ‘Courses’'],
    [move('courses', 'visit'), 'moved ‘Courses’ and the 2 pages below it into ‘Visit’'],
    [move('short', null), 'moved ‘Short’ to the top level'],
    [move('short', 'courses'), 'moved ‘Short’ among its neighbours'],
    [remove('courses'), 'removed ‘Courses’ and the 2 pages below it'],
    [set('visit', { title: { en: 'Come' } }), 'renamed ‘Visit’ to ‘Come’'],
    [
      set('visit', { label: { en: 'Come' }, inMenus: false }),
      'gave ‘Visit’ the menu label ‘Come’, took ‘Visit’ off menus',
    ],
    [set('visit', { label: { en: '' } }), 'removed the menu label of ‘Visit’'],
    [set('visit', { slug: { en: { text: 'come', own: true } } }), 'set the slug of ‘Visit’ to ‘come’'],
    [set('visit', { slug: { en: { text: '', own: false } } }), 'let the slug of ‘Visit’ follow its title'],
    [set('visit', { hidden: 'branch' }), 'hid ‘Visit’ and its branch'],
    [set('visit', { hidden: 'no' }), 'showed ‘Visit’ again'],
    [
      set('visit', { content: null, description: { en: 'x' } }),
      'changed the description of ‘Visit’, changed the text of ‘Visit’',
    ],
    [set('visit', { type: 'heading', inAddress: true }), 'made ‘Visit’ a heading, gave ‘Visit’ a step in addresses'],
    [set('tides', { target: { page: id('visit') } }), 'set where ‘Tides’ points'],
    [{ name: 'site.set', fields: { name: 'Quay' } }, 'renamed the site to ‘Quay’'],
    [{ name: 'site.set', fields: { home: id('visit') } }, 'made ‘Visit’ the home page'],
    [{ name: 'site.set', fields: { home: null } }, 'let the first page be home'],
    [
      { name: 'release.make', pages: [id('home')], retire: [id('visit'), id('short')] },
      'made 1 page live and took 2 pages down',
    ],
  ])('%#: are a sentence after a name', (operation, words) => expect(wordsOf(operation, start)).toBe(words));
});

describe('the cells of an operation', () => {
  it('tell apart what commutes', () => {
    expect(cellsOf(set('visit', { title: { en: 'Come' }, inMenus: false }))).toEqual(['visit.title', 'visit.inMenus']);
    expect(cellsOf(move('visit', null))).toEqual(['visit.place']);
    expect(cellsOf(remove('visit'))).toEqual(['visit.there']);
    expect(cellsOf({ name: 'site.set', fields: { name: 'Quay' } })).toEqual(['site.name']);
  });
});
