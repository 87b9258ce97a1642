import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import type { ClientBase } from 'pg';

/** One SQL statement, with parts before it that change data, each a common table expression; they all hold or none does. */
export class Statement {
  readonly #parts: string[] = [];
  readonly #values: unknown[] = [];

  /** A value's placeholder. */
  value(value: unknown): string {
    this.#values.push(value);
    return `$${this.#values.length}`;
  }

  part(name: string, sql: string): void {
    this.#parts.push(`${name} AS (${sql})`);
  }

  /**
   * Runs the statement without Knex's own rewriting of placeholders. It is prepared under a name made from its text: an
   * edit is one of few shapes, and planning it costs more than running it.
   */
  async run<Row>(connection: ClientBase, sql: string): Promise<Row[]> {
    const text = this.#parts.length === 0 ? sql : `WITH ${this.#parts.join(',\n')} ${sql}`;
    return (await connection.query({ name: nameOf(text), text, values: this.#values })).rows as Row[];
  }
}

const MAX_NAMES = 500;
const names = new Map<string, string>();

function nameOf(text: string): string {
  let name = names.get(text);
  if (name === undefined) {
    if (names.size >= MAX_NAMES) names.clear();
    names.set(text, (name = createHash('md5').update(text).digest('hex')));
  }
  return name;
}

/** The part of Knex's client that lends a connection. */
interface KnexClient {
  acquireConnection(): Promise<ClientBase>;
  releaseConnection(connection: ClientBase): Promise<void>;
}

/** Lends a connection of Knex's pool for the work. */
export async function withConnection<Result>(
  database: Knex,
  work: (connection: ClientBase) => Promise<Result>,
): Promise<Result> {
  const client = database.client as KnexClient;
  const connection = await client.acquireConnection();
  try {
    return await work(connection);
  } finally {
    await client.releaseConnection(connection);
  }
}

/** The work as one transaction; where it gives null nothing of it is kept. */
export async function inTransaction<Result>(
  connection: ClientBase,
  work: () => Promise<Result | null>,
): Promise<Result | null> {
  await connection.query('BEGIN');
  try {
    const result = await work();
    await connection.query(result === null ? 'ROLLBACK' : 'COMMIT');
    return result;
  } catch (fault) {
    // A connection that broke has rolled back by itself.
    await connection.query('ROLLBACK').catch(() => undefined);
    throw fault;
  }
}
