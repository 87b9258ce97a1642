import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { MatchPage } from './match-page.ts';
import { MatchMemory } from './match-memory.ts';
import { type Decided, NOTHING_DECIDED, PROPOSE_FROM, type ProposedPair, matchPages } from './match.ts';
import { ACCEPT_FROM } from './reasons.ts';

const page = (key: string, title: string, more: Partial<MatchPage> = {}): MatchPage => ({
  key,
  title,
  address: key.startsWith('/') ? key : `/${title.toLowerCase().replace(/\W+/g, '-')}`,
  above: [],
  headings: [],
  text: '',
  ...more,
});

const WORDS = [
  'Courses',
  'Fees',
  'Apply',
  'Visit',
  'Boats',
  'Oars',
  'Tides',
  'Evening',
  'Workshop',
  'News',
  'Old',
  '2',
];
const title = fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 3 }).map((words) => words.join(' '));
const pages = (prefix: string) =>
  fc
    .array(
      fc.record({
        title,
        headings: fc.array(title, { maxLength: 2 }),
        text: fc.array(fc.constantFrom(...WORDS, 'tar', 'rope', 'plank', 'rivet', 'sail'), { maxLength: 9 }),
        section: fc.constantFrom('a', 'b'),
      }),
      { maxLength: 9 },
    )
    .map((list) =>
      list.map(({ title: words, headings, text, section }, at): MatchPage => ({
        key: `${prefix}${at}`,
        title: words,
        address: `/${section}/${words.toLowerCase().replaceAll(' ', '-')}`,
        above: [],
        headings,
        text: text.join(' '),
      })),
    );
const pairsOf = (proposed: readonly ProposedPair[]) =>
  proposed.map(({ old, planned, kind, confidence }) => [old, planned, kind, Number(confidence.toFixed(9))]).sort();

describe('matching', () => {
  it('gives the same pairs when the two sides are swapped', () => {
    holds(
      fc.property(pages('o'), pages('p'), (old, planned) => {
        const swapped = matchPages(planned, old).map((one): ProposedPair => ({
          ...one,
          old: one.planned,
          planned: one.old,
          kind: one.kind === 'part' ? 'one-of-several' : one.kind === 'one-of-several' ? 'part' : 'one',
        }));
        expect(pairsOf(swapped)).toEqual(pairsOf(matchPages(old, planned)));
      }),
      { numRuns: 100 },
    );
  });

  it('gives the same pairs with a memory of earlier matchings as without one', () => {
    const step = fc.record({ old: pages('o'), planned: pages('p'), isMixed: fc.boolean(), letGo: fc.nat(8) });
    holds(
      fc.property(fc.array(step, { minLength: 2, maxLength: 4 }), (steps) => {
        const memory = new MatchMemory();
        let before = steps[0]!;
        for (const next of steps) {
          // As in life: most pages are as they were, and some were changed, added or taken away.
          const mixed = (a: readonly MatchPage[], b: readonly MatchPage[]) =>
            b.map((one, at) => (at % 3 === 0 ? one : (a[at] ?? one)));
          const old = next.isMixed ? mixed(before.old, next.old) : next.old;
          const planned = next.isMixed ? mixed(before.planned, next.planned) : next.planned;
          const decided = { ...NOTHING_DECIDED, old: new Set([`o${next.letGo}`]) };
          expect(matchPages(old, planned, decided, memory)).toEqual(matchPages(old, planned, decided));
          before = { ...next, old, planned };
        }
      }),
      { numRuns: 100 },
    );
  });

  it('gives the same pairs whatever the order of the lists, and each time', () => {
    holds(
      fc.property(pages('o'), pages('p'), (old, planned) => {
        const proposed = matchPages(old, planned);
        expect(matchPages([...old].reverse(), [...planned].reverse())).toEqual(proposed);
      }),
      { numRuns: 100 },
    );
  });

  it('keeps what is decided: a decided page gets no other partner, a declined pair does not come back', () => {
    holds(
      fc.property(pages('o'), pages('p'), fc.nat(8), fc.nat(8), (old, planned, first, second) => {
        fc.pre(first !== second && first < old.length && first < planned.length);
        const decided: Decided = {
          ...NOTHING_DECIDED,
          pairs: [[`o${first}`, `p${first}`]],
          old: new Set([`o${second}`]),
          planned: new Set([`p${second}`]),
          isDeclined: (a, b) => a === 'o1' && b === 'p2',
        };
        for (const pair of matchPages(old, planned, decided)) {
          expect(pair.kind === 'part' ? '' : pair.old).not.toBe(`o${first}`);
          expect(pair.kind === 'one-of-several' ? '' : pair.planned).not.toBe(`p${first}`);
          expect(pair.old).not.toBe(`o${second}`);
          expect(pair.planned).not.toBe(`p${second}`);
          expect([pair.old, pair.planned]).not.toEqual(['o1', 'p2']);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('gives each page one partner at most in the best set, and each left-over page one at most', () => {
    holds(
      fc.property(pages('o'), pages('p'), (old, planned) => {
        const proposed = matchPages(old, planned);
        const count = (keys: readonly string[]) => expect(new Set(keys).size).toBe(keys.length);
        count(proposed.filter((one) => one.kind !== 'part').map((one) => one.old));
        count(proposed.filter((one) => one.kind !== 'one-of-several').map((one) => one.planned));
      }),
      { numRuns: 100 },
    );
  });

  it('sees through file names, the site’s name in titles, typing mistakes and other words for the same', () => {
    const old = [
      page('/opening_times.htm', 'Opening times | The Museum'),
      page('/page.php?id=7', 'Vacancies | The Museum'),
      page('/clocks.html', 'Clokcs and watches | The Museum'),
      page('/fees.html', 'Admission charges | The Museum'),
      page('/x.html', 'Guestbook | The Museum'),
    ];
    const planned = [
      page('p1', 'Opening hours'),
      page('p2', 'Jobs'),
      page('p3', 'Clocks and watches'),
      page('p4', 'Admission prices'),
      page('p5', 'Photography'),
    ];
    const found = matchPages(old, planned).filter((one) => one.confidence > 0.5);
    expect(Object.fromEntries(found.map((one) => [one.planned, one.old]))).toEqual({
      p1: '/opening_times.htm',
      p2: '/page.php?id=7',
      p3: '/clocks.html',
      p4: '/fees.html',
    });
  });

  it('sees that one page became several, and that several became one', () => {
    const old = [
      page('/evening.html', 'Evening classes', { headings: ['Evening classes', 'First tools', 'Half models'] }),
      page('/fees.html', 'Fees'),
      page('/paying.html', 'How to pay'),
      page('/boats.html', 'Boats built'),
      page('/boats-print.html', 'Boats built (print version)'),
    ];
    const planned = [
      page('evening', 'Evening classes'),
      page('tools', 'First tools'),
      page('models', 'Half models'),
      page('fees', 'Fees and paying'),
      page('boats', 'Boats built'),
    ];
    const proposed = matchPages(old, planned);
    const kindOf = (from: string, to: string) =>
      proposed.find((one) => one.old === from && one.planned === to)?.kind ?? 'none';
    expect([
      kindOf('/evening.html', 'evening'),
      kindOf('/evening.html', 'tools'),
      kindOf('/evening.html', 'models'),
    ]).toEqual(['one', 'part', 'part']);
    expect([kindOf('/fees.html', 'fees'), kindOf('/paying.html', 'fees')].sort()).toEqual(['one', 'one-of-several']);
    expect(kindOf('/boats-print.html', 'boats')).toBe('one-of-several');
    expect(proposed.find((one) => one.old === '/boats.html')!.confidence).toBeGreaterThan(ACCEPT_FROM);
  });

  it('proposes nothing where nothing says so: not for a page that goes, nor for one that is new', () => {
    const old = [page('/fees.html', 'Fees'), page('/webcam.html', 'Webcam'), page('/poll.php', 'Poll of the month')];
    const planned = [page('fees', 'Fees'), page('mentors', 'Find a mentor'), page('podcast', 'Podcast')];
    const proposed = matchPages(old, planned);
    expect(proposed.map((one) => [one.old, one.planned])).toEqual([['/fees.html', 'fees']]);
    for (const { confidence } of proposed) expect(confidence).toBeGreaterThanOrEqual(PROPOSE_FROM);
  });

  it('asks for a look where a single word speaks for a pair that other titles have too', () => {
    const names = ['Costume collection', 'Coin collection', 'Toy collection'];
    const old = [page('/mpa.html', 'Mpa collection'), ...names.map((name, at) => page(`/${at}.html`, name))];
    const planned = [page('all', 'Collections'), ...names.map((name, at) => page(`p${at}`, name))];
    const found = matchPages(old, planned);
    expect(found.find((one) => one.old === '/0.html')).toMatchObject({ planned: 'p0' });
    for (const { confidence } of found.filter((one) => one.old === '/mpa.html'))
      expect(confidence).toBeLessThan(ACCEPT_FROM);
  });

  it('knows the old front page for the home page, whatever either is called, and no other page', () => {
    const planned = [page('home', 'Pellow Quay', { address: '/' }), page('welcome', 'Welcome to new students')];
    for (const address of ['https://old.example/', 'https://old.example/index.php', '/default.aspx', '/Start.htm']) {
      const proposed = matchPages([page(address, 'Welcome', { address })], planned);
      expect(proposed.map((one) => one.planned)).toEqual(['home']);
      expect(proposed[0]!.reasons[0]).toBe('home');
      expect(proposed[0]!.confidence).toBeGreaterThan(ACCEPT_FROM);
    }
    for (const one of matchPages([page('/a.html', 'About Pellow Quay')], planned.slice(0, 1)))
      expect(one.confidence).toBeLessThan(ACCEPT_FROM);
  });

  it('forgives a slip in a short title, and takes no other word for one', () => {
    const found = matchPages([page('/1', 'Dgos'), page('/2', 'Feet')], [page('dogs', 'Dogs'), page('fees', 'Fees')]);
    expect(found.map((one) => [one.old, one.planned])).toEqual([['/1', 'dogs']]);
  });

  it('gathers the aspects of a page, and splits by what an old page’s headings name', () => {
    const old = [
      page('/a.html', 'Courses for adults: terms'),
      page('/b.html', 'Courses for adults: prices'),
      page('/visit.html', 'Disabled visitors', { headings: ['Lifts', 'Wheelchairs'] }),
      page('/school.html', 'School'),
    ];
    const planned = [
      page('adults', 'Courses for adults'),
      page('visitors', 'Disabled visitors'),
      page('lifts', 'Lifts and wheelchairs'),
      page('school', 'School'),
      page('trips', 'School trips'),
    ];
    const kinds = matchPages(old, planned).map((one) => `${one.old} ${one.planned} ${one.kind}`);
    expect(
      kinds
        .filter((one) => one.includes('adults'))
        .map((one) => one.split(' ')[2])
        .sort(),
    ).toEqual(['one', 'one-of-several']);
    expect(kinds).toContain('/visit.html lifts part');
    // A section of the site is not made of all that begins with its name.
    expect(kinds.filter((one) => one.includes('trips'))).toEqual([]);
  });

  it('takes large print for no print version', () => {
    const old = [
      page('/1', 'Large print books'),
      page('/2', 'Talking books'),
      page('/3', 'Talking books print version'),
    ];
    const found = matchPages(old, [page('talking', 'Talking books'), page('new', 'Just in')]);
    expect(found.map((one) => [one.old, one.planned, one.kind])).toEqual([
      ['/2', 'talking', 'one'],
      ['/3', 'talking', 'one-of-several'],
    ]);
  });

  it('says why', () => {
    const [pair] = matchPages([page('/a/boats.html', 'Boats built')], [page('p', 'Boats built')]);
    expect(pair!.reasons[0]).toBe('same-title');
  });
});
