import { addDays, setHours, startOfHour } from 'date-fns';
import type { LabelId, PassphraseId } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Operation } from '#core/operations/operation.ts';
import { pellowKinds } from './pellow-kinds.ts';

const [STUDENTS, STAFF, GOVERNORS] = ['students', 'staff', 'governors'] as AudienceId[] as [
  AudienceId,
  AudienceId,
  AudienceId,
];

/** The passphrase of a branch of the school's site, as a rule names it and as visitors type it. */
export const PELLOW_PASSPHRASE = { id: 'pellowQuayBookedGroups' as PassphraseId, words: 'paper fleet' };

/** A label of the school, whose rule holds wherever a page bears it. */
const PRIVATE_ADDRESSES = 'private' as LabelId;

/** The visitors of the school's site who have an account; all of them are invented. */
export const PELLOW_VISITORS: readonly { name: string; email: string; audiences: readonly AudienceId[] }[] = [
  { name: 'Bram Calloway', email: 'bram@pellow-quay.example', audiences: [STAFF] },
  { name: 'Tobias Wren', email: 'tobias@pellow-quay.example', audiences: [STAFF, GOVERNORS] },
  { name: 'Petra Vane', email: 'petra@pellow-quay.example', audiences: [GOVERNORS] },
  { name: 'Jory Pell', email: 'jory@pellow-quay.example', audiences: [STUDENTS] },
  { name: 'Wenna Trask', email: 'wenna@pellow-quay.example', audiences: [STUDENTS] },
];

/** The school's audiences, who may open which of its branches, and what the clock opens and closes in the weeks to come. */
export function pellowAccess(
  idOf: (title: string) => PageId,
  now: Date,
  contentOf: (blocks: readonly string[]) => ContentId,
): Operation[] {
  const inDays = (days: number, hour: number) => startOfHour(setHours(addDays(now, days), hour)).toISOString();
  const rule = (title: string, access: Extract<Operation, { name: 'page.set' }>['fields']['access']): Operation => ({
    name: 'page.set',
    page: idOf(title),
    fields: { access },
  });
  return [
    { name: 'audience.add', audience: STUDENTS, title: 'Students', landing: idOf('Students') },
    { name: 'audience.add', audience: STAFF, title: 'Staff', landing: idOf('Staff handbook') },
    { name: 'audience.add', audience: GOVERNORS, title: 'Governors' },
    {
      name: 'label.add',
      label: PRIVATE_ADDRESSES,
      title: 'Private addresses',
      rule: { only: [STUDENTS, STAFF], closedLook: 'locked' },
    },
    ...pellowKinds(idOf, now, contentOf),
    rule('Lodgings', { labels: [PRIVATE_ADDRESSES] }),
    rule('First aid', { labels: [PRIVATE_ADDRESSES] }),
    rule('For groups who have booked', { passphrase: PELLOW_PASSPHRASE.id }),
    rule('Students', { only: [STUDENTS, STAFF], closedLook: 'locked' }),
    rule('Staff handbook', { only: [STAFF], closedLook: 'locked' }),
    rule('Minutes', { only: [GOVERNORS, STAFF], closedLook: 'locked' }),
    rule('Legal', { engines: 'branch' }),
    rule('Family boat week', { from: inDays(12, 8) }),
    rule('Bursaries', { until: inDays(24, 17) }),
    rule('Page not found', { standsIn: 'not-found' }),
    rule('Signing in', { standsIn: 'sign-in' }),
    rule('Not open to you', { standsIn: 'no-access' }),
    rule('Your account', { standsIn: 'account', menuFor: 'signed-in' }),
    rule('Thank you for applying', { search: 'page', engines: 'page' }),
  ];
}
