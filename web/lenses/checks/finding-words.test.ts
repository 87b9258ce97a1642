import { describe, expect, it } from 'vitest';
import type { LinkFault } from '#core/checks/link-findings.ts';
import type { PageFault } from '#core/checks/page-checks.ts';
import { toPageId } from '#core/model/ids.ts';
import { MAIN_MENU } from '#core/model/menu.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf } from '../../testing/workbench-for-keys.ts';
import { findingWords, lackWords, outsideWords, settingsLinkWords } from './finding-words.ts';

const [visit, gone] = [toPageId('Visit'), toPageId('Gone')];
const site = siteAfter([{ name: 'page.remove', page: gone }], siteOf(['Home', 'Visit', 'Gone']));
const words = (fault: LinkFault, page = visit) =>
  findingWords(site, { page: toPageId('Home'), to: { page, heading: null }, fault, says: '' });

describe('what is wrong with a link', () => {
  it('says what visitors read instead', () => {
    expect(words('hidden')).toBe(
      '‘Visit’ is hidden, or not open at this time. Visitors see the words without the link.',
    );
    expect(words('closed')).toBe(
      'Some who can read this page cannot open ‘Visit’. They see the words without the link.',
    );
    expect(words('no heading')).toBe('‘Visit’ no longer has that heading. The link leads to the top of the page.');
  });

  it('tells apart a page that was removed, one without an address, and one that is gone for good', () => {
    expect(words('not there', gone)).toMatch(/^‘Gone’ was removed\. /);
    expect(words('not there')).toMatch(/^‘Visit’ has no address of its own\. /);
    expect(words('not there', toPageId('never'))).toMatch(/^The page no longer exists\. /);
  });

  it('says what an outside address said, and the way out', () => {
    const outside = (fault: 'missing' | 'moved', says: string) =>
      findingWords(site, { page: visit, to: { address: 'https://tides.example/' }, fault, says });
    expect(outside('moved', 'https://tides.example/today')).toBe(
      'It has moved permanently to https://tides.example/today. Link to that.',
    );
    expect(outside('missing', 'It answers 404.')).toBe('It answers 404. Link elsewhere, or remove the link.');
    expect(outsideWords('no answer', 'No host.')).toBe('No host. Link elsewhere, or remove the link.');
  });
});

describe('what a page lacks', () => {
  const lack = (fault: PageFault, other: typeof visit | null = null) => lackWords(site, { page: visit, fault, other });

  it('is told with what can be done', () => {
    expect(lack('no text')).toMatch(/no text, and lists no pages.*Write lens/);
    expect(lack('no way')).toMatch(/^No menu, list or text.*Put it in menus, or link to it/);
    expect(lack('no description')).toMatch(/Describe it in the Write lens/);
  });

  it('names the page that has the same title', () => {
    expect(lack('same title', toPageId('Home'))).toMatch(/^Another page has the title ‘Home’ too\./);
    expect(lack('same title', toPageId('never'))).toMatch(/^Another page had its title\./);
  });
});

it('links of settings are named by where they stand', () => {
  expect(
    settingsLinkWords(site, { menu: MAIN_MENU.id, entry: 'tides001' as never, label: { en: 'Tides' } } as never),
  ).toBe('‘Tides’ in the Main menu');
  expect(settingsLinkWords(site, { redirect: 'known001', from: '/tides' } as never)).toBe('The redirect from /tides');
});
