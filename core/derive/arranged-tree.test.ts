import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { ArrangedEntry, EntryId } from '../model/menu.ts';
import { ArrangedTree } from './arranged-tree.ts';

const id = (name: string | number) => `${name}` as EntryId;
const entry = (name: string | number, ...below: ArrangedEntry[]): ArrangedEntry => ({
  id: id(name),
  label: { en: `${name}` },
  target: null,
  only: null,
  below,
});
/** Entries as words: "a (b c) d". */
const told = (entries: readonly ArrangedEntry[]): string =>
  entries.map((one) => one.id + (one.below.length > 0 ? ` (${told(one.below)})` : '')).join(' ');
const tree = () => new ArrangedTree([entry('a', entry('b', entry('c')), entry('d')), entry('e')]);

/** Arrangements of numbered entries: for each its parent among those before it, or none. */
const anyArrangement = fc.array(fc.nat(), { minLength: 1, maxLength: 14 }).map((parents) => {
  const below = new Map<number | null, number[]>();
  parents.forEach((seed, at) => {
    const above = at === 0 || seed % (at + 1) === at ? null : seed % (at + 1);
    below.set(above, [...(below.get(above) ?? []), at]);
  });
  const made = (above: number | null): ArrangedEntry[] => (below.get(above) ?? []).map((at) => entry(at, ...made(at)));
  return made(null);
});
const inOrder = (entries: readonly ArrangedEntry[]): EntryId[] =>
  entries.flatMap((one) => [one.id, ...inOrder(one.below)]);

describe('an arrangement that is changed', () => {
  it('is the same again where nothing was done to it', () => {
    holds(
      fc.property(anyArrangement, (entries) => {
        expect(new ArrangedTree(entries).entries()).toEqual(entries);
      }),
    );
  });

  it('knows which entry comes first as the menu is read', () => {
    holds(
      fc.property(anyArrangement, (entries) => {
        const read = inOrder(entries);
        const changed = new ArrangedTree(entries);
        for (const [at, a] of read.entries())
          for (const [before, b] of read.entries()) expect(changed.comesBefore(a, b)).toBe(at < before);
      }),
    );
  });

  it('takes an entry at its place', () => {
    const changed = tree();
    changed.add(entry('f'), id('a'), id('b'));
    changed.add(entry('g'), null, null);
    expect(told(changed.entries())).toBe('g a (b (c) f d) e');
    expect([changed.has(id('f')), changed.parent(id('f')), changed.maybe(id('h'))]).toEqual([true, 'a', undefined]);
  });

  it('leaves those below an entry that goes at its place', () => {
    const changed = tree();
    changed.dissolve(id('a'));
    expect(told(changed.entries())).toBe('b (c) d e');
    expect(changed.has(id('a'))).toBe(false);
  });

  it('moves an entry with those below it', () => {
    const changed = tree();
    changed.move(id('b'), id('e'), null);
    expect(told(changed.entries())).toBe('a (d) e (b (c))');
  });

  it('moves an entry below one of its own by letting the way there take its place', () => {
    const changed = tree();
    changed.move(id('a'), id('c'), null);
    expect(told(changed.entries())).toBe('b (c (a (d))) e');
  });

  it('loses no entry and makes no circle, whatever is moved where', () => {
    holds(
      fc.property(anyArrangement, fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 8 }), (entries, moves) => {
        const all = inOrder(entries);
        const changed = new ArrangedTree(entries);
        for (const [what, where] of moves) {
          const one = all[what % all.length]!;
          const under = all[where % all.length]!;
          if (one !== under) changed.move(one, under, null);
        }
        expect(inOrder(changed.entries()).sort()).toEqual([...all].sort());
      }),
    );
  });

  it('says what was wrong with asking for an entry that is not arranged', () => {
    expect(() => tree().at(id('nowhere'))).toThrow("No entry 'nowhere' is arranged");
  });
});
