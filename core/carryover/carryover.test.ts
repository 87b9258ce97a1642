import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { candidatePairs } from './candidates.ts';
import { WIDEST_LEAD, confidenceOf, likeness } from './confidence.ts';
import type { MatchPage } from './match-page.ts';
import { Neighbours } from './neighbours.ts';
import { pathOfOldAddress } from './old-address.ts';
import { oldRedirects } from './old-redirects.ts';
import { SIGNALS, WordWeights, compare } from './pair-signals.ts';
import { preparePages } from './prepare-pages.ts';
import { stem, trigramsOf, wordsOf } from './words.ts';

const page = (key: string, title: string, more: Partial<MatchPage> = {}): MatchPage => ({
  key,
  title,
  address: key,
  above: [],
  headings: [],
  text: '',
  ...more,
});

describe('words', () => {
  it.each([
    ['courses', 'course'],
    ['ferries', 'ferry'],
    ['boxes', 'box'],
    ['building', 'build'],
    ['planned', 'plan'],
    ['glass', 'glass'],
    ['bus', 'bus'],
    ['2026s', '2026s'],
  ])('of one kind have one stem: %s', (form, root) => expect(stem(form)).toBe(stem(root)));

  it('leave out what says nothing, and part what is written in one', () =>
    expect(wordsOf('The OpeningHours of our_page.html')).toEqual(wordsOf('opening hours')));

  it('that mean the same are the same, phrases too', () => {
    expect(wordsOf('Vacancies')).toEqual(wordsOf('Jobs'));
    expect(wordsOf('Get in touch')).toEqual(wordsOf('Contact'));
    expect(wordsOf('How to find us')).toEqual(wordsOf('Directions'));
  });

  it('lose their accents, and keep other scripts', () => {
    expect(wordsOf('Gebühren')).toEqual(wordsOf('Gebuhren'));
    expect(wordsOf('工房')).toEqual(['工房']);
  });

  it('share most of their letters with their mistyped forms', () => {
    const shared = (a: string, b: string) => trigramsOf(a).filter((one) => trigramsOf(b).includes(one)).length;
    expect(shared('timetable', 'timetabel')).toBeGreaterThan(shared('timetable', 'governors'));
  });
});

describe('an old address', () => {
  it.each([
    ['https://old.example/a%20b/?x=1#top', '/a b?x=1'],
    ['http://old.example', '/'],
    ['/courses/', '/courses'],
    ['courses.php?id=3', '/courses.php?id=3'],
    ['/bad%zz', '/bad%zz'],
  ])('%s is found by %s', (address, path) => expect(pathOfOldAddress(address)).toBe(path));

  it('is found by the same path again', () => {
    holds(
      fc.property(fc.webUrl({ withQueryParameters: true }), (url) => {
        const path = pathOfOldAddress(url);
        expect(path.startsWith('/')).toBe(true);
        if (!path.includes('%')) expect(pathOfOldAddress(path)).toBe(path);
      }),
    );
  });
});

describe('redirects of old addresses', () => {
  const add = (id: string, oldAddresses: string[] = []): Operation => ({
    name: 'page.add',
    page: toPageId(id),
    place: { parent: null },
    title: { en: id },
    plan: { oldAddresses },
  });
  const letGo = (address: string, to: 'gone' | { page: ReturnType<typeof toPageId> }): Operation => ({
    name: 'oldPage.decide',
    address,
    fields: { letGo: to },
  });

  it('lead to the page that takes an address over, the first of several, else where it was let go to', () => {
    const site = siteAfter([
      add('a', ['https://old.example/one', '/two']),
      add('b', ['/two/']),
      letGo('/three', 'gone'),
      letGo('/four', { page: toPageId('b') }),
      letGo('/one', 'gone'),
    ]);
    expect(oldRedirects(site).map(({ path, page: to }) => [path, to])).toEqual([
      ['/one', 'a'],
      ['/two', 'a'],
      ['/three', null],
      ['/four', 'b'],
    ]);
  });

  it('are not made of pages that were removed', () => {
    const site = siteAfter([add('a', ['/one']), { name: 'page.remove', page: toPageId('a') }]);
    expect(oldRedirects(site)).toEqual([]);
  });
});

const WORDS = ['fees', 'boats', 'oars', 'tides', 'evening', 'course', 'visit', 'rope', 'tar'];
const pages = fc
  .array(
    fc.record({
      title: fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 3 }),
      text: fc.array(fc.constantFrom(...WORDS), { maxLength: 10 }),
      headings: fc.array(fc.constantFrom(...WORDS), { maxLength: 2 }),
    }),
    { minLength: 1, maxLength: 8 },
  )
  .map((list) =>
    list.map(({ title, text, headings }, at) =>
      page(`k${at}`, title.join(' '), { address: `/s/${title.join('-')}`, text: text.join(' '), headings }),
    ),
  );

describe('comparing two pages', () => {
  it('gives shares of one, the same whichever comes first, and all of it for a page and itself', () => {
    holds(
      fc.property(pages, pages, (left, right) => {
        const [a, b] = [preparePages(left), preparePages(right)];
        const weights = new WordWeights([...a, ...b]);
        for (const one of a)
          for (const other of b) {
            const signals = compare(one, other, weights);
            const back = compare(other, one, weights);
            for (const name of SIGNALS) {
              expect(signals[name]).toBeGreaterThanOrEqual(0);
              expect(signals[name]).toBeLessThanOrEqual(1 + 1e-9);
              expect(back[name]).toBeCloseTo(signals[name], 9);
            }
          }
        const itself = compare(a[0]!, a[0]!, weights);
        for (const share of [itself.title, itself.letters, itself.sameTitle]) expect(share).toBeCloseTo(1, 9);
      }),
      { numRuns: 100 },
    );
  });

  it('finds a pair from either side', () => {
    holds(
      fc.property(pages, pages, (left, right) => {
        const [a, b] = [preparePages(left), preparePages(right)];
        const weights = new WordWeights([...a, ...b]);
        const there = candidatePairs(a, b, weights).map(([from, to]) => `${from} ${to}`);
        const back = candidatePairs(b, a, weights).map(([from, to]) => `${to} ${from}`);
        expect(back.sort()).toEqual(there.sort());
      }),
      { numRuns: 100 },
    );
  });

  it('leaves out the name of the site that most titles have', () => {
    const [first] = preparePages(
      ['Fees', 'Boats', 'Oars', 'Tides', 'Tar'].map((title) => page(`/${title}`, `${title} | The School`)),
    );
    expect(first!.wholeTitle).toBe(wordsOf('Fees').join(' '));
  });

  it('takes the address for the title of a page without one', () =>
    expect(preparePages([page('/visit/opening_hours.php', '')])[0]!.title).toEqual(
      [...new Set(wordsOf('opening hours'))].sort(),
    ));
});

describe('confidence', () => {
  const signals = (share: number) => Object.fromEntries(SIGNALS.map((name) => [name, share])) as never;

  it('grows with what is alike and with the lead, and stays between 0 and 1', () => {
    expect(likeness(signals(1))).toBeGreaterThan(likeness(signals(0)));
    holds(
      fc.property(
        fc.double({ min: -6, max: 12, noNaN: true }),
        fc.double({ min: -8, max: 8, noNaN: true }),
        (alike, lead) => {
          const confidence = confidenceOf(alike, lead);
          expect(confidence).toBeGreaterThan(0);
          expect(confidence).toBeLessThanOrEqual(1);
          expect(confidenceOf(alike + 0.5, lead)).toBeGreaterThanOrEqual(confidence);
          expect(confidenceOf(alike, lead + 0.5)).toBeGreaterThanOrEqual(confidence);
        },
      ),
    );
  });

  it('does not grow any more beyond the widest lead', () =>
    expect(confidenceOf(0, WIDEST_LEAD + 5)).toBe(confidenceOf(0, WIDEST_LEAD)));
});

describe('neighbours', () => {
  const old = preparePages(['a', 'b', 'c'].map((name) => page(`/courses/${name}.html`, name)));
  const planned = preparePages(['x', 'y', 'z'].map((name) => page(name, name, { address: `/learn/${name}` })));

  it('count where their groups became each other, and not where nothing is known', () => {
    const known = new Neighbours(old, planned, [
      [0, 0],
      [1, 1],
    ]);
    expect(known.share([2, 2])).toBeGreaterThan(0.5);
    expect(new Neighbours(old, planned, []).share([2, 2])).toBe(0);
  });

  it('bring the pages that are left over in such groups together', () => {
    const known = new Neighbours(old, planned, [[0, 0]]);
    expect(known.leftOver(new Set([0, 1]), new Set([0]))).toEqual([
      [2, 1],
      [2, 2],
    ]);
  });
});
