import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { type Redirect, redirectIdSchema } from '../model/redirect.ts';
import { type Site } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { IDS, type Step, anyEditStep, drawEdit, emptySite, siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { liveSiteOf } from './live-site.ts';
import { addressesLeft, resolveRedirect } from './redirects.ts';

const id = toPageId;
const add = (page: string, title: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
});
const rename = (page: string, text: string): Operation => ({
  name: 'page.set',
  page: id(page),
  fields: { slug: { en: { text, own: true } } },
});
const redirect = (from: string, to: Redirect['to']): Operation => ({
  name: 'redirect.add',
  redirect: redirectIdSchema.parse(from.replace(/\W/g, '') || 'r'),
  from,
  to,
});

/** The releases of a site one after the other, with what visitors' addresses are looked up in. */
class History {
  site: Site;
  readonly former = new Map<string, PageId>();
  readonly everLive = new Set<string>();

  constructor(site: Site) {
    this.site = site;
  }

  edit(...operations: Operation[]): this {
    this.site = siteAfter(operations, this.site);
    return this;
  }

  release(asked: Partial<Parameters<typeof planRelease>[1]> = {}): this {
    const { after, operation } = planRelease(this.site, { pages: waitingPages(this.site), retire: [], ...asked });
    expect(applyOperation(this.site, operation).ok).toBe(true);
    for (const [address, page] of addressesLeft(this.site, after)) this.former.set(address, page);
    this.site = after;
    for (const address of derivedOf(liveSiteOf(after)).addresses) if (address !== null) this.everLive.add(address);
    return this;
  }

  /** What a visitor gets at an address: the page there, or in one hop `→` and an address, `gone`, or nothing. */
  at(path: string): string {
    const { rowAt, outline, addresses } = derivedOf(liveSiteOf(this.site));
    const row = rowAt.get(path);
    if (row !== undefined) return outline.nodes[row]!.id;
    const to = resolveRedirect(this.site, { former: this.former, ofOldSite: new Map() }, path)?.to;
    if (to === undefined) return 'nothing';
    if (to === 'gone') return 'gone';
    return 'page' in to ? `→ ${addresses[outline.rowOf.get(to.page) ?? -1] ?? 'no address'}` : `→ ${to.url}`;
  }
}

const start = () =>
  new History(
    siteAfter(
      [add('home', 'Home'), add('a', 'Courses'), add('b', 'Evening', 'a'), add('c', 'Monday', 'b'), add('d', 'Visit')],
      emptySite(),
    ),
  ).release();

describe('an address that was live', () => {
  it('leads to its page in one hop, however often the page moves', () => {
    const history = start().edit(rename('a', 'learn')).release().edit(rename('a', 'classes')).release();
    expect(['/courses', '/learn', '/courses/evening', '/learn/evening/monday'].map((path) => history.at(path))).toEqual(
      ['→ /classes', '→ /classes', '→ /classes/evening', '→ /classes/evening/monday'],
    );
  });

  it('is answered by the page that takes it, and by no redirect, also where two pages swap', () => {
    const history = start().edit(rename('a', 'x'), rename('d', 'courses'), rename('a', 'visit')).release();
    expect([history.at('/courses'), history.at('/visit'), history.at('/courses/evening')]).toEqual([
      'd',
      'a',
      '→ /visit/evening',
    ]);
    history.edit(rename('d', 'y'), rename('a', 'courses'), rename('d', 'visit')).release();
    expect([history.at('/courses'), history.at('/visit'), history.at('/visit/evening')]).toEqual([
      'a',
      'd',
      '→ /courses/evening',
    ]);
  });

  it('leads to the page above one that was taken down, or where somebody chose', () => {
    const removed = () => start().edit({ name: 'page.remove', page: id('b') });
    expect(removed().release().at('/courses/evening/monday')).toBe('→ /courses');
    const chosen = removed().release({ leadsTo: { [id('b')]: { page: id('d') }, [id('c')]: 'gone' } });
    expect([chosen.at('/courses/evening'), chosen.at('/courses/evening/monday')]).toEqual(['→ /visit', 'gone']);
    // What it was to lead to goes as well: then it leads to what stands for that.
    chosen.edit({ name: 'page.remove', page: id('d') }).release();
    expect(chosen.at('/courses/evening')).toBe('→ /');
  });

  it('is gone where pages lead to one another and all are taken down', () => {
    const history = start()
      .edit({ name: 'page.remove', page: id('b') }, { name: 'page.remove', page: id('d') })
      .release({ leadsTo: { [id('b')]: { page: id('d') }, [id('d')]: { page: id('b') } } });
    expect(history.at('/visit')).toBe('gone');
  });

  it('leads to its page again once that page comes back, at its new address too', () => {
    const history = start()
      .edit({ name: 'page.remove', page: id('b') })
      .release();
    history.edit({ name: 'page.putBack', page: id('b') }, rename('b', 'nights')).release({ pages: [id('b'), id('c')] });
    expect([history.at('/courses/evening'), history.at('/courses/nights')]).toEqual(['→ /courses/nights', 'b']);
  });
});

describe('a redirect by hand', () => {
  it('comes before the page that had the address, and rests while a page has it', () => {
    const history = start().edit(rename('a', 'learn')).release();
    history.edit(redirect('/courses', { page: id('d') })).release();
    expect(history.at('/courses')).toBe('→ /visit');
    history.edit(rename('d', 'courses')).release();
    expect(history.at('/courses')).toBe('d');
  });

  it('for a branch keeps the steps below where the page has them', () => {
    const history = start()
      .edit(redirect('/kurse/*', { page: id('a') }), redirect('/kurse/alt/*', 'gone'))
      .release();
    expect(
      ['/kurse', '/kurse/evening/monday', '/kurse/elsewhere', '/kurse/alt/1', '/kursen'].map((path) =>
        history.at(path),
      ),
    ).toEqual(['→ /courses', '→ /courses/evening/monday', '→ /courses', 'gone', 'nothing']);
  });

  it('is refused for an address that a page has, and for one that has a redirect', () => {
    const { site } = start().edit(redirect('/old', { page: id('a') }));
    const refused = (operation: Operation) => {
      const outcome = applyOperation(site, operation);
      return outcome.ok ? 'made' : outcome.code;
    };
    expect(refused(redirect('/courses/evening', { page: id('d') }))).toBe('redirect-in-use');
    expect(refused({ ...redirect('/old', 'gone'), redirect: redirectIdSchema.parse('other') } as Operation)).toBe(
      'redirect-twice',
    );
    expect(refused(redirect('/older', { page: id('nobody') }))).toBe('redirect-to-no-page');
    expect(refused(redirect('/courses/*', { page: id('d') }))).toBe('made');
  });
});

it('after any history of edits and releases each address that was live answers, leads to a page in one hop, or is gone', () => {
  const page = fc.constantFrom(...IDS);
  const slug = fc.constantFrom('courses', 'visit', 'boats', 'evening');
  const slugTo = (of: PageId, text: string): Operation => ({
    name: 'page.set',
    page: of,
    fields: { slug: { en: { text, own: true } } },
  });
  const change: fc.Arbitrary<Operation[] | Step> = fc.oneof(
    { weight: 4, arbitrary: fc.tuple(page, slug).map(([of, text]) => [slugTo(of, text)]) },
    {
      weight: 4,
      arbitrary: fc
        .tuple(page, fc.option(page, { nil: null }))
        .map(([of, parent]): Operation[] => [{ name: 'page.move', page: of, place: { parent } }]),
    },
    { weight: 2, arbitrary: page.map((of): Operation[] => [{ name: 'page.remove', page: of }]) },
    { weight: 2, arbitrary: page.map((of): Operation[] => [{ name: 'page.putBack', page: of }]) },
    // Two pages swap their addresses.
    {
      weight: 2,
      arbitrary: fc
        .tuple(page, page, slug, slug)
        .map(([a, b, one, other]) => [slugTo(a, 'between'), slugTo(b, one), slugTo(a, other)]),
    },
    { weight: 2, arbitrary: anyEditStep },
  );
  const release = fc.record({
    pages: fc.subarray([...IDS], { minLength: 4 }),
    retire: fc.subarray([...IDS], { maxLength: 2 }),
    leadsTo: fc.dictionary(page, fc.oneof(fc.constant('gone' as const), fc.record({ page })), { maxKeys: 3 }),
  });
  const round = fc.tuple(fc.array(change, { minLength: 1, maxLength: 5 }), release);
  const whole = siteAfter(
    IDS.map((one, at) => add(one, `Page ${at}`, at < 4 ? null : IDS[at % 4]!)),
    emptySite(),
  );
  let met = 0;
  let runs = 0;
  holds(
    fc.property(fc.array(round, { minLength: 4, maxLength: 12, size: 'max' }), (rounds) => {
      runs++;
      const history = new History(whole).release();
      for (const [changes, { pages, retire, leadsTo }] of rounds) {
        for (const one of changes) history.edit(...(Array.isArray(one) ? one : [drawEdit(history.site, one)]));
        const { site } = history;
        const waiting = new Set(waitingPages(site));
        const comesBack = (one: PageId) => site.live.get(one)?.retired && site.nodes.get(one)?.removedWith === null;
        history.release({
          pages: pages.filter((one) => waiting.has(one) || comesBack(one)),
          retire: retire.filter((one) => site.live.get(one)?.retired === false),
          leadsTo: leadsTo as Record<PageId, 'gone' | { page: PageId }>,
        });
        const inUse = derivedOf(liveSiteOf(history.site)).rowAt;
        for (const address of history.everLive) {
          const answer = history.at(address);
          if (inUse.has(address)) expect(history.site.live.has(id(answer))).toBe(true);
          else {
            met++;
            const leadsOn = answer === 'gone' || answer.includes('//') || inUse.has(answer.slice(2));
            expect(leadsOn, `${address}: ${answer}`).toBe(true);
          }
        }
      }
    }),
    { numRuns: 100 },
  );
  expect(met / runs).toBeGreaterThan(25);
});
