import { describe, expect, it } from 'vitest';
import { arrangedNow } from '#core/derive/menu-merge.ts';
import { MENU_ANSWERS, menuTableOf } from '#core/derive/menu-table.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { arrangeByHand } from '#core/arrange/switch-menu.ts';
import { toPageId } from '#core/model/ids.ts';
import { MAIN_MENU, entryOf } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf } from '../../testing/workbench-for-keys.ts';
import { entryName, proposalWords, reasonFor } from './menu-reasons.ts';

const SITE = siteOf(['Home', 'Courses', '  Long', '    Term', '      Week', 'Visit']);
const menuOf = ({ settings }: Site) => settings.menus[0]!;
const set = (page: string, fields: object): Operation => ({ name: 'page.set', page: toPageId(page), fields });
const setMenu = (fields: object): Operation => ({ name: 'menu.set', menu: MAIN_MENU.id, fields });
/** Why a page is not in the main menu after these operations. */
const why = (page: string, ...operations: Operation[]) => {
  const site = siteAfter(operations, SITE);
  const answer = menuTableOf(site, menuOf(site)).answerAt(derivedOf(site).outline.rowOf.get(toPageId(page))!);
  return reasonFor(site, menuOf(site), answer, toPageId(page));
};

describe('why a page is not in a menu', () => {
  it('is nothing where it is', () => {
    expect(why('Visit')).toBe('');
  });

  it('is said by what keeps it out', () => {
    expect(why('Visit', set('Visit', { inMenus: false }))).toBe('The page is off menus.');
    expect(why('Long', set('Courses', { hidden: 'branch' }))).toBe(
      'Nobody can open the page: it, or a branch above it, is hidden.',
    );
    expect(why('Long', set('Courses', { inMenus: false }))).toBe('‘Courses’ above it is not in the menu.');
    expect(why('Term')).toBe('The menu shows 2 levels, and the page is deeper.');
    expect(why('Long', setMenu({ levels: 1 }))).toBe('The menu shows one level, and the page is deeper.');
    expect(why('Visit', setMenu({ root: { page: toPageId('Courses') } }))).toBe(
      'The menu begins below ‘Courses’, and the page is elsewhere.',
    );
    expect(why('Courses', setMenu({ root: 'section' }))).toMatch(/^The menu begins below the top-level page/);
    expect(
      why('Visit', {
        name: 'entry.set',
        menu: MAIN_MENU.id,
        entry: entryOf(toPageId('Visit')),
        fields: { isLeftOut: true },
      }),
    ).toBe('An exception leaves it out of this menu.');
  });

  it('has a sentence for each answer that there is', () => {
    for (const answer of MENU_ANSWERS)
      expect(reasonFor(SITE, menuOf(SITE), answer, toPageId('Long'))).toMatch(answer === 'in' ? /^$/ : /^[‘A-Z].*\.$/);
  });
});

describe('a proposal for a menu that is arranged by hand', () => {
  const byHand = siteAfter([arrangeByHand(SITE, menuOf(SITE))], SITE);
  const proposals = (...operations: Operation[]) => {
    const site = siteAfter(operations, byHand);
    return arrangedNow(site, menuOf(site)).proposals.map((one) => proposalWords(site, menuOf(site), one));
  };

  it('says what to do, where, and what has happened in the tree', () => {
    expect(
      proposals({
        name: 'page.add',
        page: toPageId('Shop'),
        place: { parent: null, after: toPageId('Courses') },
        title: { en: 'Shop' },
      }),
    ).toEqual([
      {
        what: 'Put ‘Shop’ after ‘Courses’, as in the tree',
        why: 'It is new in the menu’s part of the tree.',
      },
    ]);
    expect(proposals({ name: 'page.remove', page: toPageId('Visit') })).toEqual([
      { what: 'Remove ‘Visit’', why: 'The page was removed from the tree.' },
    ]);
    expect(proposals(set('Visit', { inMenus: false }))).toEqual([
      { what: 'Remove ‘Visit’', why: 'The page is off menus now.' },
    ]);
    expect(proposals({ name: 'page.move', page: toPageId('Visit'), place: { parent: null, after: null } })).toEqual([
      { what: 'Move ‘Visit’ first, as in the tree', why: 'The page was moved in the tree.' },
    ]);
  });

  it('is there for a page that comes first below another one', () => {
    expect(
      proposals({
        name: 'page.add',
        page: toPageId('Day'),
        place: { parent: toPageId('Visit') },
        title: { en: 'Day' },
      })[0]!.what,
    ).toBe('Put ‘Day’ first below ‘Visit’, as in the tree');
  });
});

it('an entry is called as it is told to, else as its page is', () => {
  const site = siteAfter(
    [
      set('Visit', { label: { en: 'Come' } }),
      {
        name: 'entry.add',
        menu: MAIN_MENU.id,
        entry: 'tides001' as never,
        label: { en: 'Tides' },
        target: null,
        under: null,
      },
    ],
    SITE,
  );
  expect(entryName(site, menuOf(site), 'tides001' as never)).toBe('Tides');
  expect(entryName(site, menuOf(site), entryOf(toPageId('Visit')))).toBe('Come');
  expect(entryName(site, menuOf(site), 'nowhere1' as never)).toBe('an entry');
});
