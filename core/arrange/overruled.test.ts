import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { maybeNodeAt, nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { anyEditStep, anySite, drawEdit, siteAfter } from '../testing/random-site.ts';
import { restoreOverruled, toSave } from './overruled.ts';

const id = toPageId;
const add = (page: string, parent: string | null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
});
const rename = (page: string, title: string): Operation => ({
  name: 'page.set',
  page: id(page),
  fields: { title: { en: title } },
});
const move = (page: string, parent: string | null): Operation => ({
  name: 'page.move',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
});
const remove = (page: string): Operation => ({ name: 'page.remove', page: id(page) });
const START = siteAfter([add('a', null), add('b', null), add('c', null)]);
const done = (site: typeof START, operations: readonly Operation[]) => {
  const outcome = applyOperations(site, operations);
  if (!outcome.ok) throw new Error(outcome.code);
  return outcome.site;
};

describe('one’s own work after somebody else’s edit', () => {
  it('is a title that both have set', () => {
    const after = done(START, [rename('a', 'Mine'), rename('a', 'Theirs')]);
    const again = restoreOverruled([rename('a', 'Mine')], [rename('a', 'Theirs')], after);
    expect(nodeAt(done(after, again), id('a')).title.en).toBe('Mine');
  });

  it('is a place that both have chosen', () => {
    const after = done(START, [move('c', 'a'), move('c', 'b')]);
    const again = restoreOverruled([move('c', 'a')], [move('c', 'b')], after);
    expect(nodeAt(done(after, again), id('c')).parent).toBe('a');
  });

  it('is a page that was moved into a branch and went with it', () => {
    const after = done(START, [move('c', 'b'), remove('b')]);
    const again = restoreOverruled([move('c', 'b')], [remove('b')], after);
    expect(maybeNodeAt(done(after, again), id('c'))).toMatchObject({ parent: null });
    expect(maybeNodeAt(done(after, again), id('b'))).toBeUndefined();
  });

  it.each([
    ['other pages', [rename('b', 'B')]],
    ['another field', [{ name: 'page.set', page: id('a'), fields: { inMenus: false } } as Operation]],
    ['the same in both', [rename('a', 'Mine')]],
  ])('was not lost by %s', (_, theirs) =>
    expect(restoreOverruled([rename('a', 'Mine')], theirs, done(START, [rename('a', 'Mine'), ...theirs]))).toEqual([]),
  );

  it('can always be had again by what comes back, whatever both did', () =>
    holds(
      fc.property(anySite, anyEditStep, anyEditStep, (site, one, other) => {
        const mine = drawEdit(site, one);
        const first = applyOperations(site, [mine]);
        if (!first.ok) return;
        const theirs = drawEdit(first.site, other);
        const second = applyOperations(first.site, [theirs]);
        if (!second.ok) return;
        const again = restoreOverruled([mine], [theirs], second.site);
        const outcome = applyOperations(second.site, again);
        expect(outcome.ok).toBe(true);
        if (outcome.ok && again.length > 0) expect(outcome.site).not.toBe(second.site);
      }),
      { numRuns: 150 },
    ));
});

describe('what was refused', () => {
  it('is a new page in a branch that was removed: it is saved under what stands above', () => {
    const site = done(START, [add('b1', 'b'), remove('b1')]);
    const saved = toSave([add('new', 'b1')], site);
    expect(nodeAt(done(site, saved), id('new')).parent).toBe('b');
  });

  it('is a title of a page that was removed: the page comes back with it', () => {
    const site = done(START, [remove('a')]);
    expect(nodeAt(done(site, toSave([rename('a', 'Mine')], site)), id('a')).title.en).toBe('Mine');
  });

  it('is nothing where nothing can be saved', () => expect(toSave([move('a', 'gone')], START)).toEqual([]));
});
