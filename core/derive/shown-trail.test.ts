import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { layoutIdSchema } from '../model/layout.ts';
import { PLAIN_TRAIL, type TrailSetting } from '../model/trail-setting.ts';
import type { Operation } from '../operations/operation.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { SlowReference } from '../testing/slow-reference.ts';
import { derivedOf } from './derived.ts';
import { pagesByLayout, pagesWithTrailOf, layoutOf, layoutWithReason, trailSettingOf } from './layouts.ts';
import { shownTrail, trailBy } from './shown-trail.ts';

const [home, courses, group, short, canoe] = ['home', 'courses', 'group', 'short', 'canoe'].map(toPageId);
const add = (page: typeof home, parent: typeof home | null, title: string, more: object = {}): Operation =>
  ({ name: 'page.add', page: page!, place: { parent: parent! }, title: { en: title }, ...more }) as Operation;
const site = siteAfter([
  add(home, null, 'Home'),
  add(courses, null, 'Courses'),
  add(group, courses, 'By length', { type: 'heading' }),
  add(short, group, 'Short courses'),
  add(canoe, short, 'Build a canoe'),
]);
const texts = (change: Partial<TrailSetting>, page = canoe!) =>
  trailBy(site, page, { ...PLAIN_TRAIL, ...change }).steps.map(
    ({ text, address, isFolded }) =>
      `${isFolded ? '(' : ''}${text}${address === null ? '' : ' →'}${isFolded ? ')' : ''}`,
  );

describe('a trail', () => {
  it('is the way from home to the page, with the page itself as text', () =>
    expect(texts({})).toEqual(['Home →', 'Courses →', 'By length', 'Short courses →', 'Build a canoe']));
  it('starts where it is set to: at a page above, or so many levels up', () => {
    expect(texts({ start: { page: short! } })).toEqual(['Home →', 'Short courses →', 'Build a canoe']);
    expect(texts({ start: { up: 1 }, withHome: false })).toEqual(['Short courses →', 'Build a canoe']);
    expect(texts({ start: { page: canoe! } }, short!)).toEqual(['Home →', 'Courses →', 'By length', 'Short courses']);
  });
  it('has home under a name of its own, or not at all', () => {
    expect(texts({ homeLabel: { en: 'Start' } })[0]).toBe('Start →');
    expect(texts({ withHome: false })[0]).toBe('Courses →');
  });
  it('shows the page itself, links it, or leaves it out', () => {
    expect(texts({ current: 'linked' }).at(-1)).toBe('Build a canoe →');
    expect(texts({ current: 'left out' }).at(-1)).toBe('Short courses →');
  });
  it('is shortened in the middle where it is long', () =>
    expect(texts({ most: 3 })).toEqual(['Home →', '(Courses →)', '(By length)', 'Short courses →', 'Build a canoe']));
  it('is not there where it is off', () => expect(texts({ isShown: false })).toEqual([]));

  it('has the ancestors in their order, whatever is set of it', () => {
    holds(
      fc.property(anySite, (any) => {
        const slow = new SlowReference(any);
        for (const { id } of derivedOf(any).outline.nodes) {
          const pages = shownTrail(any, id).steps.map(({ page }) => page);
          const way = slow.trail(id);
          expect(way.filter((page) => pages.includes(page))).toEqual(pages);
        }
      }),
      { numRuns: 100 },
    );
  });
});

describe('what holds of a trail and a layout', () => {
  const BARE = layoutIdSchema.parse('bare');
  const set = (leadIn: string): TrailSetting => ({ ...PLAIN_TRAIL, leadIn: { en: leadIn } });
  const withLayout = siteAfter(
    [
      { name: 'layout.add', layout: BARE, title: 'Bare', fields: { trail: set('layout') } },
      { name: 'page.set', page: courses!, fields: { frame: { layout: BARE } } },
      { name: 'site.set', fields: { trail: set('site') } },
    ],
    site,
  );
  const words = (of: typeof site, page: typeof home) => shownTrail(of, page!).leadIn;

  it('is the layout of the page, of the nearest page above with one, or the first of the site', () => {
    expect(layoutOf(withLayout, canoe!).id).toBe(BARE);
    expect(layoutWithReason(withLayout, canoe!).namedBy).toBe(courses);
    expect(layoutOf(withLayout, home!).id).toBe('standard');
    expect(pagesByLayout(withLayout)).toEqual(
      new Map([
        ['standard', [home]],
        [BARE, [courses, short, canoe]],
      ]),
    );
  });

  it('is the nearest setting: of the page, of a branch, of the layout, of the site', () => {
    expect([words(withLayout, home), words(withLayout, canoe)]).toEqual(['site', 'layout']);
    const branch = siteAfter(
      [{ name: 'page.set', page: short!, fields: { frame: { trail: { setting: set('branch'), reach: 'branch' } } } }],
      withLayout,
    );
    expect([words(branch, courses), words(branch, canoe)]).toEqual(['layout', 'branch']);
    expect(trailSettingOf(branch, canoe!).setBy).toEqual({ by: 'branch', page: short });
    expect(pagesWithTrailOf(branch, short!)).toBe(2);
    const page = siteAfter(
      [{ name: 'page.set', page: short!, fields: { frame: { trail: { setting: set('page'), reach: 'page' } } } }],
      withLayout,
    );
    expect([words(page, short), words(page, canoe)]).toEqual(['page', 'layout']);
    expect(pagesWithTrailOf(page, short!)).toBe(1);
  });
});
