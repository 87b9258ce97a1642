import { describe, expect, it } from 'vitest';
import type { PageId } from '../model/ids.ts';
import { toPageId } from '../model/ids.ts';
import type { Operation } from '../operations/operation.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { fileOpensWords } from './file-access.ts';

const add = (page: string, access?: object): Operation =>
  ({
    name: 'page.add',
    page: toPageId(page),
    place: { parent: null },
    title: { en: page },
    ...(access && { access }),
  }) as Operation;
const site = siteAfter(
  [
    { name: 'audience.add', audience: 'staff', title: 'Staff' } as Operation,
    { name: 'audience.add', audience: 'parents', title: 'Parents' } as Operation,
    add('home'),
    add('rota', { only: ['staff'] }),
    add('menu', { only: ['parents'] }),
    add('tomorrow', { from: '2090-01-01T00:00:00Z' }),
    { name: 'release.make', pages: ['home', 'rota', 'menu', 'tomorrow'].map(toPageId), retire: [] },
    add('draft'),
  ],
  emptySite(),
);
const AT = Date.parse('2026-11-30T09:00:00Z');
const words = (...pages: (string | [string])[]) =>
  fileOpensWords(
    site,
    pages.map((one) => ({
      page: (typeof one === 'string' ? one : one[0]) as PageId,
      isInSection: typeof one !== 'string',
    })),
    AT,
  );

describe('who can open a file', () => {
  it.each<[ReturnType<typeof words>, string]>([
    [words(), 'Only colleagues can open it: no live page shows it.'],
    [words('draft'), 'Only colleagues can open it: no live page shows it.'],
    [words('rota', 'home'), 'Everyone can open it, through ‘home’.'],
    [words('rota'), 'It is open to Staff through ‘rota’.'],
    [words('rota', 'menu'), 'It is open to Staff through ‘rota’; to Parents through ‘menu’.'],
    [words('tomorrow'), 'No visitor can open it: no visitor can open a live page that shows it.'],
  ])('%s', (said, expected) => expect(said).toBe(expected));
  it('says that it stands in a section for some', () =>
    expect(words(['home'])).toMatch(/in a section for some of them\.$/));
});
