import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DirectoryPerson } from '../directory/directory-person.ts';
import type { PageId } from '../model/ids.ts';
import { holds } from '../testing/holds.ts';
import {
  type ColleagueSyncItem,
  type GroupRole,
  type SyncedColleague,
  planColleagues,
  without,
} from './colleague-sync.ts';
import type { RoleAt } from './powers.ts';
import { type RoleId, SHIPPED_ROLES } from './role.ts';

const at = (role: string, page: string | null = null): RoleAt => ({
  page: page as PageId | null,
  role: role as RoleId,
});
const gives = (group: string, role: string, page: string | null = null): GroupRole => ({ ...at(role, page), group });
const GROUPS = [
  gives('tutors', 'writer', 'courses'),
  gives('tutors', 'reader'),
  gives('office', 'editor'),
  gives('office', 'reader', 'news'),
];

const person = (given: Partial<DirectoryPerson> = {}): DirectoryPerson => ({
  id: 'd1',
  name: 'Mira Sand',
  email: 'mira@pellow-quay.example',
  isActive: true,
  groups: ['tutors'],
  ...given,
});
const colleague = (given: Partial<SyncedColleague> = {}): SyncedColleague => ({
  account: 'a1',
  name: 'Mira Sand',
  email: 'mira@pellow-quay.example',
  roles: [at('reader'), at('writer', 'courses')],
  placesFromDirectory: [null, 'courses' as PageId],
  isSuspended: false,
  directoryId: 'd1',
  hasLeft: false,
  ...given,
});
const byHand = (...roles: RoleAt[]) => colleague({ roles, placesFromDirectory: [], directoryId: null });
const NOBODY: ReadonlySet<string> = new Set();
const plan = (
  people: readonly DirectoryPerson[],
  colleagues: readonly SyncedColleague[],
  groups: readonly GroupRole[] = GROUPS,
): ColleagueSyncItem[] => planColleagues(people, groups, SHIPPED_ROLES, colleagues, NOBODY);

/** The colleagues after a synchronisation. */
const done = (colleagues: readonly SyncedColleague[], items: readonly ColleagueSyncItem[]): SyncedColleague[] => {
  const after = new Map(items.flatMap((one) => (one.account !== null && one.after ? [[one.account, one.after]] : [])));
  return [
    ...colleagues.map((one) => ({ ...one, ...after.get(one.account) })),
    ...items.flatMap(({ kind, name, email, after: made }, n) =>
      kind === 'made' ? [{ account: `new${n}`, name, email, ...made! }] : [],
    ),
  ];
};

describe('colleagues from the directory', () => {
  it('are those in a group that has a role, and nobody else', () =>
    expect(plan([person(), person({ id: 'd2', email: 'wenna@home.example', groups: ['choir'] })], [])).toMatchObject([
      { kind: 'made', email: 'mira@pellow-quay.example', gains: [at('writer', 'courses'), at('reader')], loses: [] },
    ]));

  it('have for each place the role that may do most', () =>
    expect(plan([person({ groups: ['tutors', 'office'] })], [])[0]!.gains).toEqual(
      expect.arrayContaining([at('editor'), at('writer', 'courses'), at('reader', 'news')]),
    ));

  it('keep what was given by hand, which holds where a group would give another role', () => {
    const [item] = plan([person({ email: 'MIRA@pellow-quay.example' })], [byHand(at('manager'))]);
    expect(item).toMatchObject({ kind: 'changed', account: 'a1', gains: [at('writer', 'courses')], loses: [] });
    expect(item!.after).toMatchObject({ directoryId: 'd1', placesFromDirectory: ['courses'], isSuspended: false });
    expect(item!.isTakenOver).toBe(true);
  });

  it.each([
    ['is gone', []],
    ['is not active', [person({ isActive: false })]],
  ])('are suspended with their roles when one %s, and come back with those of their groups', (_, people) => {
    const items = plan(people, [colleague()]);
    expect(items).toMatchObject([{ kind: 'suspended', gains: [], loses: [] }]);
    const left = done([colleague()], items);
    expect(left[0]).toMatchObject({ isSuspended: true, hasLeft: true });
    expect(plan([person({ groups: ['office'] })], left)).toMatchObject([
      {
        kind: 'restored',
        gains: [at('editor'), at('reader', 'news')],
        loses: [at('reader'), at('writer', 'courses')],
        after: { isSuspended: false, hasLeft: false },
      },
    ]);
  });

  it('keep what was given by hand when they leave the groups alone, and are the directory’s no more', () => {
    const before = colleague({ roles: [at('publisher', 'news'), at('reader')], placesFromDirectory: [null] });
    expect(plan([person({ groups: [] })], [before])).toMatchObject([
      { kind: 'changed', loses: [at('reader')], after: { directoryId: null, isSuspended: false } },
    ]);
    expect(plan([person({ groups: [] })], [colleague()])).toMatchObject([{ kind: 'suspended' }]);
  });

  it('stay out where somebody suspended them by hand', () => {
    const out = colleague({ isSuspended: true });
    expect(plan([person()], [out])).toEqual([]);
    expect(plan([], [out])).toEqual([]);
    expect(plan([person({ groups: ['office'] })], [out])[0]!.after).toMatchObject({ isSuspended: true });
  });

  it('are not those who look after the installation, nor anybody whom it never brought', () => {
    const mayAll = new Set(['mira@pellow-quay.example']);
    expect(planColleagues([person()], GROUPS, SHIPPED_ROLES, [], mayAll)).toEqual([]);
    expect(plan([], [byHand(at('writer'))])).toEqual([]);
  });

  it('leave aside a second one with the mail address of another, and say so', () =>
    expect(plan([person(), person({ id: 'd2', name: 'Other' })], [colleague()])).toMatchObject([
      { kind: 'in the way', name: 'Other', gains: [], after: null },
    ]));

  it('have no role that the site has not', () => expect(plan([person()], [], [gives('tutors', 'gone')])).toEqual([]));
});

describe('whatever the directory and the colleagues are', () => {
  const id = fc.constantFrom('d1', 'd2', 'd3', 'd4');
  const email = fc.constantFrom('a@home.example', 'b@home.example', 'C@home.example', 'd@home.example');
  const place = fc.constantFrom(null, 'courses', 'news');
  const role = fc.constantFrom('reader', 'writer', 'editor', 'manager');
  const groupRoles = fc.uniqueArray(
    fc
      .tuple(fc.constantFrom('tutors', 'office', 'choir'), role, place)
      .map(([group, of, page]) => gives(group, of, page)),
    { selector: ({ group, page }) => `${group} ${page}` },
  );
  const people = fc.uniqueArray(
    fc.record({
      id,
      name: fc.constant('Ana'),
      email,
      isActive: fc.boolean(),
      groups: fc.subarray(['tutors', 'office', 'choir', 'band']),
    }),
    { selector: (one) => one.id },
  );
  const colleagues = fc
    .uniqueArray(
      fc.record({
        email,
        roles: fc.uniqueArray(
          fc.tuple(role, place).map(([of, page]) => at(of, page)),
          { selector: ({ page }) => page, minLength: 1 },
        ),
        from: fc.subarray([null, 'courses', 'news']),
        isSuspended: fc.boolean(),
        directoryId: fc.option(id, { nil: null }),
        hasLeft: fc.boolean(),
      }),
      { selector: (one) => one.email.toLowerCase() },
    )
    .map((all): SyncedColleague[] => {
      const known = new Set<string>();
      return all.map(({ from, ...one }, n) => {
        const directoryId = one.directoryId !== null && known.has(one.directoryId) ? null : one.directoryId;
        if (directoryId !== null) known.add(directoryId);
        const places =
          directoryId === null ? [] : one.roles.map(({ page }) => page).filter((page) => from.includes(page));
        return {
          ...one,
          account: `a${n}`,
          name: 'Ana',
          directoryId,
          placesFromDirectory: places,
          hasLeft: directoryId !== null && one.isSuspended && one.hasLeft,
        };
      });
    });

  it('comes to rest: soon nothing is left to do but what stays in the way', () =>
    holds(
      fc.property(people, groupRoles, colleagues, (everybody, groups, before) => {
        const left = (colleagues: readonly SyncedColleague[]) =>
          plan(everybody, colleagues, groups).filter(({ kind }) => kind !== 'in the way');
        let now = before;
        // Of two with one mail address, the second has the account when the first is let go.
        for (let times = 0; times <= everybody.length && left(now).length > 0; times++) now = done(now, left(now));
        expect(left(now)).toEqual([]);
      }),
    ));

  it('keeps each role that was given by hand, lets nobody in who was kept out by hand, and has one role a place', () =>
    holds(
      fc.property(people, groupRoles, colleagues, (everybody, groups, before) => {
        const after = done(before, plan(everybody, before, groups));
        before.forEach((one, n) => {
          const given = one.roles.filter(({ page }) => !one.placesFromDirectory.includes(page));
          expect(without(given, after[n]!.roles)).toEqual([]);
          if (one.isSuspended && !one.hasLeft) expect(after[n]!.isSuspended).toBe(true);
        });
        for (const { roles, placesFromDirectory } of after) {
          const places = roles.map(({ page }) => page);
          expect(new Set(places).size).toBe(places.length);
          expect(placesFromDirectory.every((page) => places.includes(page))).toBe(true);
        }
      }),
    ));

  it('leaves in nobody whom the directory brought and has no more', () =>
    holds(
      fc.property(people, groupRoles, colleagues, (everybody, groups, before) => {
        const isThere: ReadonlySet<string> = new Set(everybody.filter(({ isActive }) => isActive).map((one) => one.id));
        for (const one of done(before, plan(everybody, before, groups)))
          if (one.directoryId !== null && !isThere.has(one.directoryId)) expect(one.isSuspended).toBe(true);
      }),
    ));
});
