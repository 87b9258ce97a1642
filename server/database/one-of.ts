import type { Knex } from 'knex';

/**
 * For `where`: the column is one of these texts, of which there can be any number. They travel as one array, since PostgreSQL takes no
 * more than 65,535 values in a statement, which Knex's `whereIn` would send one by one.
 */
export const oneOf =
  (column: string, texts: Iterable<string>) =>
  (where: Knex.QueryBuilder): void => {
    void where.whereRaw('?? = ANY(?::text[])', [column, [...texts]]);
  };
