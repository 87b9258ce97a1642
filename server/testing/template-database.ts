import { createHash } from 'node:crypto';
import pg from 'pg';

/** Processes that want the same template at once take turns by this lock of PostgreSQL's. */
const LOCK = 4_400_001;

/**
 * A database of its own, copied from one that is filled once and kept, since copying is quicker than filling.
 * @param base the address of a database of the server @param name of the copy
 * @param contents what the template holds, in any words: other contents have another template
 * @param fill fills the template at that address, and has left it when it ends
 * @returns the copy's address, and what drops it
 */
export async function copyOfTemplate(
  base: string,
  name: string,
  contents: string,
  fill: (url: string) => Promise<void>,
): Promise<{ url: string; drop: () => Promise<void> }> {
  const template = `spur_template_${createHash('sha256').update(contents).digest('hex').slice(0, 16)}`;
  const addressOf = (database: string) => base.replace(/\/[^/]+$/, `/${database}`);
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query('SELECT pg_advisory_lock($1)', [LOCK]);
  try {
    const there = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [template]);
    if (there.rowCount === 0) {
      // Renamed once it is whole, so that one that was left half done is not taken for a template.
      const unfinished = `${template}_unfinished`;
      await admin.query(`DROP DATABASE IF EXISTS ${unfinished} WITH (FORCE)`);
      await admin.query(`CREATE DATABASE ${unfinished}`);
      await fill(addressOf(unfinished));
      await admin.query(`ALTER DATABASE ${unfinished} RENAME TO ${template}`);
    }
    await admin.query(`CREATE DATABASE ${name} TEMPLATE ${template} STRATEGY file_copy`);
  } finally {
    await admin.query('SELECT pg_advisory_unlock($1)', [LOCK]);
  }
  return {
    url: addressOf(name),
    drop: async () => {
      await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
      await admin.end();
    },
  };
}
