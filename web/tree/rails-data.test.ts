import { describe, expect, it } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { railsOf } from './rails-data.ts';

const SITE = siteOf(['Home', 'Courses', '  Long', '  Short', '    Oars', 'Visit']);
const staff = 'staff' as AudienceId;
const set = (page: string, fields: object): Operation => ({ name: 'page.set', page: toPageId(page), fields });
/** The rails of a row, by its title. */
const rails = (site: Site, title: string, isOpen = true) => {
  const derived = derivedOf(site);
  return railsOf({ site, derived, moment: null }, derived.outline.rowOf.get(toPageId(title))!, isOpen);
};
/** The stretches of a row as words: "arrives 1". */
const stretches = (site: Site, title: string, isOpen = true) =>
  rails(site, title, isOpen).stretches.map(({ way, level }) => `${way} ${level}`);

describe('the rails of a row', () => {
  it('come from above and go on to the next page of the level', () => {
    expect(stretches(SITE, 'Home')).toEqual(['leaves 0']);
    expect(stretches(SITE, 'Visit')).toEqual(['arrives 0']);
    expect(stretches(SITE, 'Long')).toEqual(['passes 0', 'arrives 1', 'leaves 1']);
  });

  it('bend to the pages below while these show', () => {
    expect(stretches(SITE, 'Courses')).toEqual(['arrives 0', 'leaves 0', 'bends 0']);
    expect(stretches(SITE, 'Courses', false)).toEqual(['arrives 0', 'leaves 0']);
  });

  it('pass by on each level that goes on further down', () => {
    expect(stretches(SITE, 'Oars')).toEqual(['passes 0', 'arrives 2']);
    expect(stretches(SITE, 'Short')).toEqual(['passes 0', 'arrives 1', 'bends 1']);
  });

  it('have a stop where the page is in menus, and a cover where it is hidden', () => {
    const site = siteAfter([set('Visit', { inMenus: false }), set('Courses', { hidden: 'branch' })], SITE);
    expect(rails(site, 'Home')).toMatchObject({ hasStop: true, hasCover: false, isCovered: false });
    expect(rails(site, 'Visit')).toMatchObject({ hasStop: false, hasCover: false, isCovered: false });
    expect(rails(site, 'Courses')).toMatchObject({ hasCover: true, isCovered: true });
    // What lies below is hidden without a cover of its own.
    expect(rails(site, 'Oars')).toMatchObject({ hasCover: false, isCovered: true });
  });

  it('are each of the state of the page that they lead to', () => {
    const site = siteAfter([{ name: 'release.make', pages: ['Home', 'Visit'].map(toPageId), retire: [] }], SITE);
    expect(rails(site, 'Home').stretches).toMatchObject([{ way: 'leaves', state: 'draft' }]);
    expect(rails(site, 'Courses').stretches).toMatchObject([
      { way: 'arrives', state: 'draft' },
      { way: 'leaves', state: 'live' },
      { way: 'bends', state: 'draft' },
    ]);
  });
});

describe('the gate of a row', () => {
  const gated = siteAfter(
    [{ name: 'audience.add', audience: staff, title: 'Staff' }, set('Courses', { access: { only: [staff] } })],
    SITE,
  );

  it('names who passes, and tints what lies below it, not the way there', () => {
    const at = rails(gated, 'Courses');
    expect(at.hasGate).toBe(true);
    expect(at.passing.map(({ name }) => name)).toEqual(['Staff']);
    const [tint] = at.passing.map((sign) => sign.tint);
    expect(at.stretches.map(({ way, tint: of }) => [way, of])).toEqual([
      ['arrives', -1],
      ['leaves', -1],
      ['bends', tint],
    ]);
    expect(rails(gated, 'Oars')).toMatchObject({ hasGate: false, tint, passing: [] });
  });

  it('is not there where nothing narrows', () => {
    expect(rails(gated, 'Visit')).toMatchObject({ hasGate: false, tint: -1, passing: [] });
  });
});

it('rails that look the same are known as the same, and others are not', () => {
  const again = siteAfter([set('Visit', { title: { en: 'Come' } })], SITE);
  expect(rails(again, 'Long').signature).toBe(rails(SITE, 'Long').signature);
  expect(rails(again, 'Long').signature).not.toBe(rails(SITE, 'Short').signature);
});
