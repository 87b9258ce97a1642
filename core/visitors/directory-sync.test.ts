import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type DirectoryPerson, mostSuspendedUnseen } from '../directory/directory-person.ts';
import type { AudienceId } from '../model/audience.ts';
import { type GroupAudiences, type SyncItem, type SyncedAccount, planSync } from './directory-sync.ts';

const [STAFF, STUDENTS, GOVERNORS] = ['staff', 'students', 'governors'] as [AudienceId, AudienceId, AudienceId];
const GROUPS: GroupAudiences = { tutors: STAFF, office: STAFF, year: STUDENTS };
const person = (given: Partial<DirectoryPerson> = {}): DirectoryPerson => ({
  id: 'd1',
  name: 'Sunniva Pell',
  email: 'sunniva@pellow-quay.example',
  isActive: true,
  groups: ['tutors'],
  ...given,
});
const account = (given: Partial<SyncedAccount> = {}): SyncedAccount => ({
  id: 'v1',
  name: 'Sunniva Pell',
  email: 'sunniva@pellow-quay.example',
  audiences: [STAFF],
  isSuspended: false,
  directoryId: 'd1',
  directoryAudiences: [STAFF],
  hasLeft: false,
  ...given,
});

/** The accounts after a synchronisation. */
const done = (accounts: readonly SyncedAccount[], items: readonly SyncItem[]): SyncedAccount[] => {
  const after = new Map(items.flatMap((one) => (one.account !== null && one.after ? [[one.account, one.after]] : [])));
  return [
    ...accounts.map((one) => ({ ...one, ...after.get(one.id) })),
    ...items.flatMap(({ kind, after: made }, at) => (kind === 'made' ? [{ id: `new${at}`, ...made! }] : [])),
  ];
};

describe('a synchronisation', () => {
  it('makes an account for whoever is in a group with an audience, and for nobody else', () => {
    const people = [person(), person({ id: 'd2', email: 'wenna@home.example', groups: ['choir'] })];
    expect(planSync(people, GROUPS, [])).toMatchObject([
      { kind: 'made', email: 'sunniva@pellow-quay.example', gains: [STAFF], loses: [] },
    ]);
  });

  it('takes over an account that has the mail address, and keeps what was given by hand', () => {
    const before = account({ directoryId: null, audiences: [GOVERNORS], directoryAudiences: [] });
    const [item] = planSync([person({ email: 'SUNNIVA@pellow-quay.example' })], GROUPS, [before]);
    expect(item).toMatchObject({ kind: 'changed', account: 'v1', gains: [STAFF], loses: [] });
    expect(item!.after!.audiences).toEqual([GOVERNORS, STAFF]);
  });

  it('moves somebody from one audience to another as they change groups, by name and by address', () => {
    const moved = person({ name: 'Sunniva Trask', email: 'trask@pellow-quay.example', groups: ['year'] });
    expect(planSync([moved], GROUPS, [account()])).toMatchObject([
      { kind: 'changed', name: 'Sunniva Trask', email: 'trask@pellow-quay.example', gains: [STUDENTS], loses: [STAFF] },
    ]);
  });

  it.each([
    ['is gone', []],
    ['is not active', [person({ isActive: false })]],
    ['is in no group with an audience', [person({ groups: [] })]],
  ])('suspends whoever %s, and restores who comes back', (_, people) => {
    const items = planSync(people, GROUPS, [account({ audiences: [STAFF, GOVERNORS] })]);
    expect(items).toMatchObject([{ kind: 'suspended', loses: [STAFF] }]);
    expect(items[0]!.after).toMatchObject({ isSuspended: true, hasLeft: true, audiences: [GOVERNORS] });
    const left = done([account({ audiences: [STAFF, GOVERNORS] })], items);
    expect(planSync([person()], GROUPS, left)).toMatchObject([{ kind: 'restored', gains: [STAFF] }]);
  });

  it('leaves suspended who was suspended by hand', () => {
    const byHand = account({ isSuspended: true });
    expect(planSync([person()], GROUPS, [byHand])).toEqual([]);
    const left = done([byHand], planSync([], GROUPS, [byHand]));
    expect(left[0]).toMatchObject({ isSuspended: true, hasLeft: false });
    expect(done(left, planSync([person()], GROUPS, left))[0]!.isSuspended).toBe(true);
  });

  it('does not touch accounts that are none of the directory’s', () =>
    expect(planSync([], GROUPS, [account({ directoryId: null, directoryAudiences: [] })])).toEqual([]));

  it('leaves aside who would take the address of another account, and says so', () => {
    const other = account({ id: 'v2', directoryId: 'd2', email: 'wenna@home.example' });
    const people = [person({ email: 'wenna@home.example' }), person({ id: 'd2', email: 'wenna@home.example' })];
    const items = planSync(people, GROUPS, [account(), other]);
    expect(items).toMatchObject([{ kind: 'in the way', email: 'wenna@home.example' }]);
  });

  const id = fc.constantFrom('d1', 'd2', 'd3', 'd4');
  const email = fc.constantFrom('a@home.example', 'b@home.example', 'C@home.example', 'd@home.example');
  const people = fc.uniqueArray(
    fc.record({
      id,
      name: fc.constantFrom('Ana', 'Ben'),
      email,
      isActive: fc.boolean(),
      groups: fc.subarray(['tutors', 'office', 'year', 'choir']),
    }),
    { selector: (one) => one.id },
  );
  const own = fc.subarray([STAFF, STUDENTS, GOVERNORS]);
  const accounts = fc
    .uniqueArray(
      fc.record({
        name: fc.constantFrom('Ana', 'Ben'),
        email,
        audiences: own,
        isSuspended: fc.boolean(),
        directoryId: fc.option(id, { nil: null }),
        directoryAudiences: own,
        hasLeft: fc.boolean(),
      }),
      { selector: (one) => one.email.toLowerCase() },
    )
    .map((all): SyncedAccount[] => {
      const known = new Set<string>();
      return all.map((one, at) => {
        const directoryId = one.directoryId !== null && known.has(one.directoryId) ? null : one.directoryId;
        if (directoryId !== null) known.add(directoryId);
        return {
          ...one,
          id: `v${at}`,
          directoryId,
          directoryAudiences:
            directoryId === null ? [] : one.directoryAudiences.filter((a) => one.audiences.includes(a)),
          hasLeft: directoryId !== null && one.isSuspended && one.hasLeft,
        };
      });
    });

  it('comes to rest: soon nothing is left to do but what stays in the way', () =>
    holds(
      fc.property(people, accounts, (everybody, before) => {
        let at = before;
        let items = planSync(everybody, GROUPS, at);
        // An address that one account lets go of is free for another the next time.
        for (let times = 0; times <= everybody.length && items.some(({ kind }) => kind !== 'in the way'); times++) {
          at = done(at, items);
          items = planSync(everybody, GROUPS, at);
        }
        expect(items.filter(({ kind }) => kind !== 'in the way')).toEqual([]);
      }),
    ));

  it('never gives one mail address to two accounts, and takes no audience that was given by hand', () =>
    holds(
      fc.property(people, accounts, (everybody, before) => {
        const after = done(before, planSync(everybody, GROUPS, before));
        const addresses = after.map((one) => one.email.toLowerCase());
        expect(new Set(addresses).size).toBe(addresses.length);
        before.forEach((one, at) => {
          const byHand = one.audiences.filter((audience) => !one.directoryAudiences.includes(audience));
          expect(byHand.every((audience) => after[at]!.audiences.includes(audience))).toBe(true);
        });
      }),
    ));
});

describe('suspending while nobody looks', () => {
  it('goes as far as a fifth of the accounts, and never stops at fewer than five', () => {
    const many = (count: number) => Array.from({ length: count }, () => account());
    expect([mostSuspendedUnseen(many(3)), mostSuspendedUnseen(many(100))]).toEqual([5, 20]);
  });
});
