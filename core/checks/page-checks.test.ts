import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { accessTable, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import type { AudienceId } from '../model/audience.ts';
import type { ContentId } from '../model/ids.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { STANDARD_LAYOUT } from '../model/layout.ts';
import { MAIN_MENU } from '../model/menu.ts';
import type { Operation } from '../operations/operation.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { TEXT_FAULTS } from '../sections/text-faults.ts';
import { PAGE_FAULTS, type PageFault, newPageFindings, pageFindings } from './page-checks.ts';

const id = toPageId;
const NOW = Date.parse('2026-11-26T00:00:00Z');
const staff = 'staff' as AudienceId;
const TEXT = 'text0001' as ContentId;
const add = (page: string, parent: string | null = null, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
  description: { en: `About ${page}` },
  content: TEXT,
  ...more,
});
const siteOf = (...operations: Operation[]) =>
  siteAfter([{ name: 'audience.add', audience: staff, title: 'Staff' }, add('home'), ...operations], emptySite());
/** The pages that lack something, for operations on a small site and links in texts. */
const lacking = (fault: PageFault, operations: Operation[], links: [string, string][] = []) =>
  pageFindings(
    siteOf(...operations),
    NOW,
    links.map(([page, to]) => ({ page: id(page), to: id(to) })),
  )
    .filter((finding) => finding.fault === fault)
    .map(({ page }) => page as string);

describe('a page without text', () => {
  it('is told unless it lists what is below it', () => {
    expect(
      lacking('no text', [
        add('courses', null, { content: null }),
        add('evening', 'courses', { content: null }),
        add('visit'),
      ]),
    ).toEqual(['evening']);
  });

  it('is told where all that it would list is off menus, or where it is to list nothing', () => {
    const silent = { listing: { look: 'none', levels: 1, order: 'tree' } };
    expect(
      lacking('no text', [
        add('courses', null, { content: null }),
        add('evening', 'courses', { inMenus: false }),
        add('places', null, { content: null, frame: silent }),
        add('harbour', 'places'),
      ]),
    ).toEqual(['courses', 'places']);
  });

  it('is no fault of headings, links, and what nobody can read', () => {
    expect(
      lacking('no text', [
        add('more', null, { type: 'heading', content: null }),
        add('hidden', null, { content: null, hidden: 'page' }),
        add('soon', null, { content: null, access: { from: '2027-01-01T00:00:00.000Z' } }),
        add('signIn', null, { content: null, access: { standsIn: 'sign-in' } }),
      ]),
    ).toEqual([]);
  });
});

describe('a page without a description', () => {
  const bare = { description: {} };

  it('is told where search engines show it to everyone', () => {
    expect(
      lacking('no description', [
        add('visit', null, bare),
        add('staffroom', null, { ...bare, access: { only: [staff] } }),
        add('thanks', null, { ...bare, access: { engines: 'page' } }),
      ]),
    ).toEqual(['visit']);
  });
});

describe('a title that pages share', () => {
  it('is told of each of them, with another one that has it, whatever its letters', () => {
    const site = siteOf(
      add('courses'),
      add('fees', 'courses', { title: { en: 'Fees' } }),
      add('visit'),
      add('costs', 'visit', { title: { en: 'FÉES' } }),
      add('prices', null, { title: { en: 'fees' } }),
      add('old', null, { title: { en: 'Fees' }, hidden: 'page' }),
    );
    expect(
      pageFindings(site, NOW, [])
        .filter(({ fault }) => fault === 'same title')
        .map(({ page, other }) => [page, other]),
    ).toEqual([
      ['fees', 'costs'],
      ['costs', 'fees'],
      ['prices', 'fees'],
    ]);
  });
});

describe('a page that no way leads to', () => {
  const apart = add('apart', null, { inMenus: false });

  it('stands in no menu and no list, and no text links to it', () => {
    expect(lacking('no way', [apart])).toEqual(['apart']);
    expect(lacking('no way', [apart], [['home', 'apart']])).toEqual([]);
    expect(
      lacking('no way', [apart, add('way', null, { type: 'link', content: null, target: { page: id('apart') } })]),
    ).toEqual([]);
    expect(
      lacking('no way', [
        apart,
        add('way', null, { type: 'link', content: null, inMenus: false, target: { page: id('apart') } }),
      ]),
    ).toEqual(['apart']);
  });

  it('is not one below a menu’s last level, which the page above lists', () => {
    expect(lacking('no way', [add('a'), add('b', 'a'), add('c', 'b'), add('d', 'c')])).toEqual([]);
  });

  it('is one that the page above does not list, and what lies below it, but not where a trail leads up to it', () => {
    const silent = { frame: { listing: { look: 'none', levels: 1, order: 'tree' } } };
    const deep = [add('a'), add('b', 'a', silent), add('c', 'b', silent), add('d', 'c')];
    expect(lacking('no way', deep)).toEqual(['c', 'd']);
    expect(lacking('no way', deep, [['home', 'd']])).toEqual([]);
  });

  it('is not one that an entry of a menu leads to besides, nor the landing page of an audience', () => {
    expect(
      lacking('no way', [
        apart,
        {
          name: 'menu.set',
          menu: MAIN_MENU.id,
          fields: {
            extras: [
              { id: 'extra001', label: {}, target: { page: id('apart') }, only: null, under: null, pin: 'last' },
            ],
          },
        } as Operation,
      ]),
    ).toEqual([]);
    expect(
      lacking('no way', [
        apart,
        { name: 'audience.set', audience: staff, fields: { landing: id('apart') } } as Operation,
      ]),
    ).toEqual([]);
  });

  it('is one whose list holds nothing but a heading without pages', () => {
    expect(
      lacking('no way', [
        add('apart', null, { inMenus: false }),
        add('more', 'apart', { type: 'heading', content: null }),
      ]),
    ).toEqual(['apart']);
  });

  it('is one that only pages link to which cannot be come upon themselves, or be read', () => {
    const other = add('other', null, { inMenus: false });
    const hidden = add('hidden', null, { hidden: 'page' });
    const links: [string, string][] = [
      ['apart', 'other'],
      ['other', 'apart'],
      ['apart', 'apart'],
      ['hidden', 'apart'],
    ];
    expect(lacking('no way', [apart, other, hidden], links)).toEqual(['apart', 'other']);
    expect(lacking('no way', [apart, other, hidden], [...links, ['home', 'apart']])).toEqual([]);
  });

  const setMenu = (fields: object): Operation => ({ name: 'menu.set', menu: MAIN_MENU.id, fields }) as Operation;

  it('is not one that a heading of a menu leads to, as the first page below it', () => {
    const topOnly = setMenu({ levels: 1, headings: 'first page' });
    const group = [add('group', null, { type: 'heading', content: null }), add('first', 'group'), add('next', 'group')];
    expect(lacking('no way', [topOnly, ...group])).toEqual(['next']);
    expect(lacking('no way', [setMenu({ levels: 1 }), ...group])).toEqual(['first', 'next']);
  });

  it('is not one that a link leads to which a page lists, and is one where only a menu that stands nowhere has it', () => {
    const deep = [add('a'), add('b', 'a'), add('c', 'b')];
    const way = add('way', 'c', { type: 'link', content: null, target: { page: id('apart') } });
    expect(lacking('no way', [apart, ...deep, way])).toEqual([]);
    const noMenus = { menus: { utility: null, header: null, side: null, footer: null } };
    const nowhere = { name: 'layout.set', layout: STANDARD_LAYOUT.id, fields: noMenus } as Operation;
    const silentHome = {
      name: 'page.set',
      page: id('home'),
      fields: { frame: { listing: { look: 'none', levels: 1, order: 'tree' } } },
    } as Operation;
    expect(lacking('no way', [add('a'), silentHome])).toEqual([]);
    expect(lacking('no way', [add('a'), silentHome, nowhere])).toEqual(['a']);
  });

  it('is one that only a form links to: visitors read no text there', () => {
    const form = add('enter', null, { access: { standsIn: 'sign-in' } });
    expect(lacking('no way', [apart, form], [['enter', 'apart']])).toEqual(['apart']);
  });

  it('is not the home page', () => {
    expect(lacking('no way', [{ name: 'page.set', page: id('home'), fields: { inMenus: false } }])).toEqual([]);
  });
});

describe('a page of a kind', () => {
  const course = { access: { labels: ['course'] } };
  const kind = [
    { name: 'label.add', label: 'course', title: 'Course', about: 'course' },
    {
      name: 'field.add',
      label: 'course',
      field: 'price',
      title: 'Price',
      settings: { type: 'money', isRequired: true },
    },
    { name: 'field.add', label: 'course', field: 'note', title: 'Note', settings: { isForVisitors: false } },
  ] as Operation[];
  const set = (fields: object) => ({ name: 'field.set', field: 'price', fields }) as Operation;
  const pages = [
    add('plain'),
    add('free', null, course),
    add('paid', null, { ...course, details: { price: '420 EUR' } }),
    add('blank', null, { ...course, content: null, details: { note: 'x' } }),
  ];

  it('is told where it says nothing in a required field that says nothing by itself', () => {
    expect(lacking('required field', [...kind, ...pages])).toEqual(['free', 'blank']);
    expect(lacking('required field', [...kind, ...pages, set({ initial: '10 EUR' })])).toEqual([]);
    expect(lacking('required field', [...kind, ...pages, set({ isRemoved: true })])).toEqual([]);
  });

  it('is told where it says what the field cannot hold any more', () => {
    expect(lacking('unread field', [...kind, ...pages])).toEqual([]);
    expect(lacking('unread field', [...kind, ...pages, set({ type: 'day' })])).toEqual(['paid']);
    expect(lacking('unread field', [...kind, ...pages, set({ type: 'day' }), set({ type: 'money' })])).toEqual([]);
  });

  it('is not empty where it says something that visitors see', () => {
    const bare = add('bare', null, { ...course, content: null, details: { price: '1 EUR' } });
    expect(lacking('no text', [...kind, ...pages, bare])).toEqual(['blank']);
  });
});

describe('what is found in texts', () => {
  it.each(TEXT_FAULTS)('is told of the page that somebody can read: %s', (fault) => {
    const site = siteOf(add('visit'), add('shut'), {
      name: 'page.set',
      page: id('shut'),
      fields: { access: { only: [] } },
    });
    const faults = ['visit', 'shut', 'gone'].map((page) => ({ page: id(page), fault }));
    expect(pageFindings(site, NOW, [], faults).filter((one) => one.fault === fault)).toEqual([
      { page: 'visit', fault, other: null },
    ]);
  });
});

describe('what pages lack', () => {
  it('is told in tree order, of pages that somebody can read, each thing once', () => {
    holds(
      fc.property(anySite, (site) => {
        const { outline } = derivedOf(site);
        const { open } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), NOW);
        const found = pageFindings(site, NOW, []);
        const rows = found.map(({ page }) => outline.rowOf.get(page)!);
        expect(rows).toEqual([...rows].sort((a, b) => a - b));
        for (const row of rows) expect([outline.nodes[row]!.type, open[row] !== 0]).toEqual(['page', true]);
        expect(new Set(found.map(({ page, fault }) => `${fault} ${page}`)).size).toBe(found.length);
        for (const { fault } of found) expect(PAGE_FAULTS).toContain(fault);
      }),
    );
  });

  it('is what a release brings where it was not so before', () => {
    const before = pageFindings(siteOf(add('a', null, { content: null })), NOW, []);
    const after = pageFindings(
      siteOf(add('a', null, { content: null, inMenus: false }), add('b', null, { description: {} })),
      NOW,
      [],
    );
    const told = (found: ReturnType<typeof pageFindings>): [PageId, PageFault][] =>
      found.map(({ page, fault }) => [page, fault]);
    expect(told(newPageFindings(before, after))).toEqual([
      ['a', 'no way'],
      ['b', 'no description'],
    ]);
    expect(newPageFindings(before, before)).toEqual([]);
    expect(newPageFindings(after, [])).toEqual([]);
  });
});
