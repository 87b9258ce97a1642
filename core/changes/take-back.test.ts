import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import { checkSite } from '../model/check-site.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { nodeDifferences } from '../model/node.ts';
import { type Site, homeOf } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { IDS, type Step, anySite, anyEditStep, drawEdit, emptySite, siteAfter } from '../testing/random-site.ts';
import { settingsDifferences } from './waiting-settings.ts';
import { planRelease, waitingPages } from './release-plan.ts';
import { type ReleaseDone, planTakeBack } from './take-back.ts';

const id = toPageId;
const add = (page: string, title: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
});
const title = (page: string, text: string): Operation => ({
  name: 'page.set',
  page: id(page),
  fields: { title: { en: text } },
});

/** A site with the releases that were made of it. */
class Releases {
  readonly done: ReleaseDone[] = [];
  site: Site;

  constructor(site: Site) {
    this.site = site;
  }

  edit(...operations: Operation[]): this {
    this.site = siteAfter(operations, this.site);
    return this;
  }

  make(pages: readonly PageId[] = waitingPages(this.site), retire: readonly PageId[] = []): this {
    return this.apply(planRelease(this.site, { pages, retire }).operation);
  }

  apply(operation: Operation): this {
    const outcome = applyOperation(this.site, operation);
    if (!outcome.ok) throw new Error(`refused: ${outcome.code}`);
    const [inverse] = outcome.inverse as Extract<Operation, { name: 'release.takeBack' }>[];
    this.done.push({
      before: inverse?.before ?? {},
      settingsBefore: this.site.liveSettings,
      settingsAfter: outcome.site.liveSettings,
    });
    this.site = outcome.site;
    return this;
  }

  plan(at: number) {
    const later = this.done.slice(at + 1).map((one, index) => ({ ...one, number: at + 1 + index }));
    return planTakeBack(this.site, this.done[at]!, later);
  }
}
const liveTitles = (site: Site): string[] =>
  derivedOf(liveSiteOf(site)).outline.nodes.map((node) => node.title.en ?? '');
const start = () =>
  new Releases(siteAfter([add('home', 'Home'), add('a', 'Courses'), add('b', 'Visit')], emptySite())).make();

describe('taking back a release', () => {
  it('gives its pages what visitors had before it, and takes down what was new', () => {
    const releases = start()
      .edit(title('a', 'Learning'), add('c', 'Evening', 'a'))
      .make();
    const plan = releases.plan(1);
    expect(plan).toMatchObject({ madeLive: 1, takenDown: 1, left: [] });
    expect(plan.addresses).toEqual([
      { page: 'a', before: '/learning', after: '/courses' },
      { page: 'c', before: '/learning/evening', after: null },
    ]);
    expect(liveTitles(releases.apply(plan.operation!).site)).toEqual(['Home', 'Courses', 'Visit']);
    // Taking back the taking back makes it live again.
    expect(liveTitles(releases.apply(releases.plan(2).operation!).site)).toEqual([
      'Home',
      'Learning',
      'Evening',
      'Visit',
    ]);
  });

  it('leaves what a later release changed, and says which', () => {
    const releases = start()
      .edit(title('a', 'Learning'), title('b', 'Find us'))
      .make()
      .edit(title('a', 'Classes'))
      .make();
    const plan = releases.plan(1);
    expect(plan.left).toEqual([{ page: 'a', because: 'changed since', release: 2 }]);
    expect(liveTitles(releases.apply(plan.operation!).site)).toEqual(['Home', 'Classes', 'Visit']);
  });

  it('keeps the page above one that went live below it since', () => {
    const releases = start()
      .edit(add('c', 'Evening', 'a'))
      .make()
      .edit(add('d', 'Monday', 'c'))
      .make();
    expect(releases.plan(1)).toMatchObject({
      operation: null,
      left: [{ page: 'c', because: 'parent', of: 'd' }],
    });
  });

  it('does not give a page an address that another has by now', () => {
    const releases = start().edit(title('a', 'Learning')).make().edit(add('c', 'Courses')).make();
    expect(releases.plan(1).left).toEqual([{ page: 'a', because: 'address', of: 'c' }]);
  });

  it('takes back the parts of the settings that are still as it made them', () => {
    const releases = start()
      .edit(
        { name: 'site.set', fields: { name: 'Quay' } },
        { name: 'fact.set', fact: 'telephone' as never, fields: { text: '1' } },
      )
      .make([])
      .edit({ name: 'fact.set', fact: 'telephone' as never, fields: { text: '2' } })
      .make([]);
    const plan = releases.plan(1);
    expect([plan.settings, plan.leftSettings]).toEqual([['name'], [{ part: 'facts', release: 2 }]]);
    expect(releases.apply(plan.operation!).site.liveSettings).toMatchObject({ name: 'Test site' });
  });

  it('leaves a part of the settings that later ones changed and changed again', () => {
    const named = (name: string): Operation => ({ name: 'site.set', fields: { name } });
    const releases = start().edit(named('Quay')).make([]).edit(named('Harbour')).make([]).edit(named('Quay')).make([]);
    const plan = releases.plan(1);
    expect(plan).toMatchObject({ operation: null, settings: [], leftSettings: [{ part: 'name', release: 3 }] });
  });

  it('leaves the home page live while other pages stay so', () => {
    const releases = start()
      .edit(add('c', 'News'))
      .make()
      .edit({ name: 'site.set', fields: { home: id('c') } })
      .make([]);
    const plan = releases.plan(1);
    expect(plan.left).toEqual([{ page: 'c', because: 'home' }]);
    expect(releases.plan(2).leftSettings).toEqual([]);
  });

  it('does not make a page home that is not live', () => {
    const releases = start()
      .edit({ name: 'site.set', fields: { home: id('a') } })
      .make([])
      .edit({ name: 'site.set', fields: { home: id('b') } })
      .make([])
      .make([], [id('a')]);
    expect(releases.plan(2).leftSettings).toEqual([{ part: 'home', release: null }]);
  });

  it('does not make a page live again that names a label which is gone: it would open to everyone', () => {
    const label = { labels: ['papers' as never] };
    const releases = start()
      .edit(
        { name: 'label.add', label: 'papers' as never, title: 'Papers', rule: { search: 'page' } },
        { name: 'page.set', page: id('b'), fields: { access: label } },
      )
      .make()
      .edit({ name: 'page.set', page: id('b'), fields: { access: { labels: [] } } })
      .make()
      .edit({ name: 'label.remove', label: 'papers' as never })
      .make([]);
    // What the release did is still as it made it, and yet cannot come back.
    expect(releases.plan(2).left).toEqual([{ page: 'b', because: 'setting', part: 'labels' }]);
  });

  it('leaves a sound live site, and the last release is taken back whole', () => {
    const step = fc.oneof(
      { weight: 5, arbitrary: anyEditStep as fc.Arbitrary<Step | { pages: PageId[] }> },
      { weight: 1, arbitrary: fc.record({ pages: fc.subarray([...IDS], { minLength: 5 }) }) },
    );
    holds(
      fc.property(
        anySite,
        fc.array(step, { minLength: 5, maxLength: 25, size: 'max' }),
        fc.nat(),
        (start, steps, which) => {
          const releases = new Releases(start);
          for (const one of steps) {
            if ('name' in one) releases.edit(drawEdit(releases.site, one));
            else releases.make(one.pages.filter((page) => waitingPages(releases.site).includes(page)));
          }
          if (releases.done.length === 0) return;
          const check = (site: Site) => {
            expect(checkSite(site)).toEqual([]);
            const addresses = derivedOf(liveSiteOf(site)).addresses.filter((address) => address !== null);
            expect(new Set(addresses).size).toBe(addresses.length);
          };
          const last = releases.done.length - 1;
          const whole = releases.plan(last);
          expect(whole.left).toEqual([]);
          const { before } = releases.done[last]!;
          if (whole.operation) {
            const outcome = applyOperation(releases.site, whole.operation);
            if (!outcome.ok) throw new Error(outcome.code);
            check(outcome.site);
            for (const [page, was] of Object.entries(before)) {
              const now = outcome.site.live.get(page as PageId)!;
              expect(now.retired).toBe(was?.retired ?? true);
              if (was) expect(nodeDifferences(was.node, now.node)).toEqual([]);
            }
          }
          const at = which % releases.done.length;
          const any = releases.plan(at);
          const was = releases.site;
          if (!any.operation) return;
          const is = releases.apply(any.operation).site;
          check(is);
          // What a later release changed stays as that one made it, whatever its value.
          for (const { before, settingsBefore, settingsAfter } of releases.done.slice(at + 1, -1)) {
            for (const page of Object.keys(before) as PageId[]) expect(is.live.get(page)).toBe(was.live.get(page));
            if (settingsBefore && settingsAfter)
              for (const part of settingsDifferences(settingsBefore, settingsAfter))
                expect(is.liveSettings![part]).toEqual(was.liveSettings![part]);
          }
          // The address of the site leads to a page as before, unless nothing is left or the last release is taken back.
          const home = (site: Site) => homeOf(liveSiteOf(site));
          if (home(was) !== null && at < last && liveSiteOf(is).nodes.size > 0) expect(home(is)).not.toBeNull();
        },
      ),
      { numRuns: 100 },
    );
  });
});
