import pg from 'pg';

/** So long a statement is tried again while the database cannot be reached. */
const PATIENCE_MS = 120_000;
const TRY_AGAIN_MS = 500;
/** What says that the connection is gone or the server is starting: PostgreSQL's classes 08 and 57P, and the system's own codes. */
const IS_GONE = /^(08|57P0)|^E(CONNREFUSED|CONNRESET|PIPE)$/;

/** A statement that says how many rows it has changed, which the package reads without looking whether there is an answer. */
const COUNTS = /\bSELECT COUNT\(\*\)/i;

/**
 * Connections for a package that does not wait for all of its statements, so that one which fails would end the process: while
 * the database cannot be reached they are tried again. Once `ending` is aborted they give nothing instead.
 */
export class PatientDatabase {
  readonly #url: string;
  readonly #pool: pg.Pool;
  readonly #ending: AbortSignal;

  constructor(url: string, ending: AbortSignal, onFault: (fault: unknown) => void) {
    this.#url = url;
    this.#pool = new pg.Pool({ connectionString: url, max: 2 });
    this.#pool.on('error', onFault);
    this.#ending = ending;
  }

  async executeSql(text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
    for (const end = Date.now() + PATIENCE_MS; ;) {
      try {
        return await this.#pool.query(text, values);
      } catch (fault) {
        const { code = '', message } = fault as { code?: string; message: string };
        const isGone = IS_GONE.test(code) || message.startsWith('Connection terminated');
        if (this.#ending.aborted) return { rows: COUNTS.test(text) ? [{ count: '0' }] : [] };
        if (!isGone || Date.now() > end) throw fault;
        await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
      }
    }
  }

  /** Does something while no other process does what asks for the same lock. */
  async locked<Result>(lock: number, work: () => Promise<Result>): Promise<Result> {
    const client = new pg.Client(this.#url);
    // A connection that is lost is told by the query that waits for it.
    client.on('error', () => undefined);
    await client.connect();
    try {
      await client.query('SELECT pg_advisory_lock($1)', [lock]);
      return await work();
    } finally {
      await client.end();
    }
  }

  close = (): Promise<void> => this.#pool.end();
}
