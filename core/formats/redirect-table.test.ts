import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import type { RedirectId } from '../model/redirect.ts';
import { siteAfter } from '../testing/random-site.ts';
import { readRedirectTable } from './redirect-table.ts';

const BASE = 'https://pellow-quay.example';
const [visit, tides] = [toPageId('visit'), toPageId('tides')];
const site = siteAfter([
  { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
  { name: 'page.add', page: visit, place: { parent: null }, title: { en: 'Visit' } },
  { name: 'page.add', page: tides, place: { parent: visit }, title: { en: 'Tides' } },
  { name: 'redirect.add', redirect: 'known001' as RedirectId, from: '/taken', to: { page: visit } },
]);
const read = (...lines: string[]) => readRedirectTable(lines.join('\n'), site, BASE);
const destinations = (...lines: string[]) => read('from,to', ...lines).map(({ destination }) => destination);
const faults = (...lines: string[]) => read('from,to', ...lines).map(({ fault }) => fault);

describe('a table of redirects', () => {
  it('leads to pages, to outside addresses, or nowhere', () => {
    expect(destinations('/find-us,/visit', '/tide-table,https://tides.example/today', '/fair-1999,')).toEqual([
      { page: visit },
      { url: 'https://tides.example/today' },
      'gone',
    ]);
  });

  it('takes addresses with the site’s own in front, encoded, and with a slash at the end', () => {
    expect(read('from,to', `${BASE}/find-us/,${BASE}/visit/tides/`, '/caf%C3%A9,/visit')).toMatchObject([
      { line: 2, from: '/find-us', destination: { page: tides }, fault: null },
      { line: 3, from: '/café', destination: { page: visit }, fault: null },
    ]);
  });

  it('knows its columns by other usual names, and a status of 410', () => {
    expect(
      read('Code;Old address;New address', '301;/find-us;/visit', '410;/fair-1999;/visit').map(
        ({ destination }) => destination,
      ),
    ).toEqual([{ page: visit }, 'gone']);
    expect(read('source,destination', '/find-us,/visit')[0]!.destination).toEqual({ page: visit });
  });

  it('takes patterns for a branch, also where a page has the address before the star', () => {
    expect(faults('/visit/old/*,/visit')).toEqual([null]);
  });
});

describe('a line that cannot be made', () => {
  it('says why', () => {
    expect(
      faults(
        '/visit,/visit/tides',
        '/taken,/visit',
        '/find-us,/nowhere',
        '/find-us,ftp://tides.example',
        'find us,/visit',
      ),
    ).toEqual([
      'A page has this address.',
      'This address already has a redirect.',
      'No page has the address /nowhere.',
      'An outside address starts with https:// or http://.',
      expect.stringMatching(/./),
    ]);
  });

  it('leaves the others as they are, and each address is taken once', () => {
    expect(faults('/find-us,/visit', '/find-us/,/visit/tides', '/find-me,/visit')).toEqual([
      null,
      'This address already has a redirect.',
      null,
    ]);
  });

  it('keeps what it asked for, with its line, so that it can be found in the file', () => {
    expect(read('from,to', '/find-us,/visit', '/where,/nowhere')[1]).toMatchObject({
      line: 3,
      from: '/where',
      to: '/nowhere',
      destination: null,
    });
  });

  it('is the first where no columns are named, or the file is no table', () => {
    expect(read('/find-us,/visit')).toEqual([
      expect.objectContaining({ line: 1, fault: 'The first row must have the columns ‘from’ and ‘to’.' }),
    ]);
    const [broken] = read('from,to', '"/find-us,/visit');
    expect(broken).toMatchObject({ destination: null });
    expect(broken!.fault).not.toBeNull();
  });
});
