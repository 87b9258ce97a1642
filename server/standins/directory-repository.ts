import type { Knex } from 'knex';

export interface StandInGroup {
  readonly id: string;
  readonly name: string;
}

/** Somebody in the stand-in for a directory. */
export interface StandInPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly is_active: boolean;
  /** The ids of their groups. */
  readonly groups: string[];
}

export const standInGroups = (database: Knex): Promise<StandInGroup[]> =>
  database<StandInGroup>('standin_group').orderBy('name') as unknown as Promise<StandInGroup[]>;

export const standInPeople = (database: Knex): Promise<StandInPerson[]> =>
  database<StandInPerson>('standin_person').orderBy(['name', 'id']) as unknown as Promise<StandInPerson[]>;

export async function putStandInGroups(database: Knex, groups: readonly StandInGroup[]): Promise<void> {
  await database('standin_group').insert([...groups]);
}

/** Adds somebody, or changes who has the id. */
export async function putStandInPerson(database: Knex, person: StandInPerson): Promise<void> {
  await database('standin_person').insert(person).onConflict('id').merge();
}

export async function removeStandInPerson(database: Knex, id: string): Promise<void> {
  await database('standin_person').where({ id }).delete();
}
