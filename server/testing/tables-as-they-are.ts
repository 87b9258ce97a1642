import type { Database } from '../database/connect.ts';

/** Tables that change by themselves, or that count what is refused. */
const VOLATILE = [
  'session',
  'sign_in_attempt',
  'familiar_place',
  'missed_address',
  'redirect_hit',
  'walk',
  'security_log',
];

/** What stands in each table, as a short text that differs where anything does. */
export async function tablesAsTheyAre(database: Database): Promise<Map<string, string>> {
  const tables: string[] = await database('pg_tables')
    .where({ schemaname: 'public' })
    .whereNotIn('tablename', VOLATILE)
    .orderBy('tablename')
    .pluck('tablename');
  const each = tables.map(
    (table) =>
      `SELECT '${table}' AS name, md5(coalesce(string_agg(md5(t::text), '' ORDER BY md5(t::text)), '')) AS state FROM "${table}" t`,
  );
  const { rows } = await database.raw<{ rows: { name: string; state: string }[] }>(each.join(' UNION ALL '));
  return new Map(rows.map(({ name, state }) => [name, state]));
}
