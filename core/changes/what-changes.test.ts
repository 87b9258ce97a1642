import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { applyOperation, applyOperations } from '../operations/apply.ts';
import { anyStep, anySite, drawEdit, siteAfter } from '../testing/random-site.ts';
import { SlowReference } from '../testing/slow-reference.ts';
import type { AudienceId } from '../model/audience.ts';
import { entryOf, toMenuId } from '../model/menu.ts';
import type { Operation } from '../operations/operation.ts';
import { menusForAudiences, whatChanges } from './what-changes.ts';

describe('what changes', () => {
  it('lists exactly the addresses and closings that differ, by the slow reference', () => {
    holds(
      fc.property(anySite, anyStep, (before, step) => {
        const outcome = applyOperation(before, drawEdit(before, step));
        if (!outcome.ok) return;
        const after = outcome.site;
        const changes = whatChanges(before, after);
        const [was, is] = [new SlowReference(before), new SlowReference(after)];
        const [inBefore, inAfter] = [was.inTreeOrder(), is.inTreeOrder()];
        const both = inAfter.filter((id) => inBefore.includes(id));
        expect(changes.added).toEqual(inAfter.filter((id) => !inBefore.includes(id)));
        expect(changes.removed).toEqual(inBefore.filter((id) => !inAfter.includes(id)));
        expect(changes.addresses.map((one) => one.page)).toEqual(
          both.filter((id) => was.address(id) && is.address(id) && was.address(id) !== is.address(id)),
        );
        expect(changes.closed).toEqual(both.filter((id) => was.hiddenBy(id) === null && is.hiddenBy(id) !== null));
        expect(changes.opened).toEqual(both.filter((id) => was.hiddenBy(id) !== null && is.hiddenBy(id) === null));
      }),
      { numRuns: 150 },
    );
  });

  it('is nothing when a change is taken back', () => {
    holds(
      fc.property(anySite, anyStep, (before, step) => {
        const there = applyOperation(before, drawEdit(before, step));
        const back = there.ok ? applyOperations(there.site, there.inverse) : null;
        if (!back?.ok) return;
        expect(Object.values(whatChanges(before, back.site)).flat()).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });

  it('counts the branch that moves along', () => {
    const site = siteAfter(
      ['home', 'courses', 'visit'].map((name) => ({
        name: 'page.add' as const,
        page: toPageId(name),
        place: { parent: null },
        title: { en: name },
      })),
    );
    const below = Array.from({ length: 11 }, (_, n) => ({
      name: 'page.add' as const,
      page: toPageId(`c${n}`),
      place: { parent: toPageId('courses') },
      title: { en: `Course ${n}` },
    }));
    const before = siteAfter(below, site);
    const after = siteAfter(
      [{ name: 'page.move', page: toPageId('courses'), place: { parent: toPageId('visit') } }],
      before,
    );
    const { addresses } = whatChanges(before, after);
    expect(addresses).toHaveLength(12);
    expect(addresses[0]).toEqual({ page: 'courses', before: '/courses', after: '/visit/courses' });
  });
});

describe('what changes in menus', () => {
  const [home, courses, short, visit] = ['home', 'courses', 'short', 'visit'].map(toPageId);
  const add = (page: typeof home, parent: typeof home | null): Operation =>
    ({ name: 'page.add', page: page!, place: { parent: parent! }, title: { en: String(page) } }) as Operation;
  const site = siteAfter([
    { name: 'audience.add', audience: 'staff' as AudienceId, title: 'Staff' },
    add(home, null),
    add(courses, null),
    add(short, courses!),
    add(visit, null),
  ]);
  const menus = (...edits: Operation[]) => whatChanges(site, siteAfter(edits, site)).menus;

  it('is a number before and after for what moves, and for those that move up', () =>
    expect(menus({ name: 'page.move', page: courses!, place: { parent: visit! } })).toEqual([
      { menu: 'main', entry: 'visit', before: { number: '3', text: 'visit' }, after: { number: '2', text: 'visit' } },
      {
        menu: 'main',
        entry: 'courses',
        before: { number: '2', text: 'courses' },
        after: { number: '2.1', text: 'courses' },
      },
      { menu: 'main', entry: 'short', before: { number: '2.1', text: 'short' }, after: null },
    ]));

  it('is the words that follow a new title, and not those of an entry with its own', () => {
    const rename: Operation = { name: 'page.set', page: visit!, fields: { title: { en: 'Come' } } };
    expect(menus(rename)).toEqual([
      { menu: 'main', entry: 'visit', before: { number: '3', text: 'visit' }, after: { number: '3', text: 'Come' } },
    ]);
    const named = siteAfter(
      [{ name: 'entry.set', menu: toMenuId('main'), entry: entryOf(visit!), fields: { label: { en: 'Visits' } } }],
      site,
    );
    expect(whatChanges(named, siteAfter([rename], named)).menus).toEqual([]);
  });

  it('is said for each audience, where access changes', () => {
    const rule: Operation = { name: 'page.set', page: courses!, fields: { access: { only: ['staff' as AudienceId] } } };
    const after = siteAfter([rule], site);
    expect(whatChanges(site, after).menus).toEqual([]);
    expect(
      menusForAudiences(site, after, 0).map(({ audience, loses }) => [audience, loses.map(({ entry }) => entry)]),
    ).toEqual([['everyone', ['courses', 'short']]]);
  });
});
