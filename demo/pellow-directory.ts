import type { AudienceId } from '#core/model/audience.ts';
import { type RoleId, roleIdSchema } from '#core/people/role.ts';
import type { GroupAudiences } from '#core/visitors/directory-sync.ts';
import type { StandInGroup, StandInPerson } from '#server/standins/directory-repository.ts';

/** The groups of the school's directory. */
export const PELLOW_GROUPS: readonly StandInGroup[] = [
  { id: 'g-instructors', name: 'Instructors' },
  { id: 'g-office', name: 'Office' },
  { id: 'g-year', name: 'Year course' },
  { id: 'g-governors', name: 'Governors' },
  { id: 'g-choir', name: 'Shanty choir' },
];

/** Which audiences the groups give; the choir gives none. */
export const PELLOW_GROUP_AUDIENCES: GroupAudiences = {
  'g-instructors': 'staff' as AudienceId,
  'g-office': 'staff' as AudienceId,
  'g-year': 'students' as AudienceId,
  'g-governors': 'governors' as AudienceId,
};

/** Which roles the groups give on the school's site, in the branch below a page by its title or on the whole site for `null`. */
export const PELLOW_GROUP_ROLES: readonly {
  readonly group: string;
  readonly role: RoleId;
  readonly in: string | null;
}[] = [
  { group: 'g-instructors', role: roleIdSchema.parse('writer'), in: 'Courses' },
  { group: 'g-office', role: roleIdSchema.parse('editor'), in: 'News' },
];

const person = (name: string, groups: readonly string[], isActive = true): StandInPerson => ({
  id: `d-${name.toLowerCase().replace(' ', '-')}`,
  name,
  email: `${name.split(' ')[0]!.toLowerCase()}@pellow-quay.example`,
  is_active: isActive,
  groups: groups.map((one) => `g-${one}`),
});

/** Who is in the school's directory; all of them are invented. */
export const PELLOW_PEOPLE: readonly StandInPerson[] = [
  person('Sunniva Pell', ['instructors', 'choir']),
  person('Tobias Wren', ['instructors', 'governors']),
  person('Bram Calloway', ['office']),
  person('Oona Trask', ['office', 'choir']),
  person('Petra Vane', ['governors']),
  person('Jory Pell', ['year']),
  person('Wenna Trask', ['year', 'choir']),
  person('Ansel Roe', ['year']),
  person('Maren Tull', ['year']),
  person('Kester Blow', ['choir']),
  person('Hob Ferris', ['instructors'], false),
];
