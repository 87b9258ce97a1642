import type { Knex } from 'knex';

/** From where an account was signed in to before, as hashes; and whose a passphrase is. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE familiar_place (hash text PRIMARY KEY, at timestamptz NOT NULL);
    CREATE INDEX familiar_place_at ON familiar_place (at);

    ALTER TABLE passphrase RENAME TO former_passphrase;
    ALTER INDEX passphrase_pkey RENAME TO former_passphrase_pkey;
    CREATE TABLE passphrase (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      id text NOT NULL,
      hash text NOT NULL,
      made_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (site, id)
    );
    INSERT INTO passphrase (site, id, hash, made_at)
    SELECT DISTINCT named.site, former_passphrase.id, hash, made_at FROM former_passphrase JOIN LATERAL (
      SELECT site FROM node WHERE access::text LIKE '%' || former_passphrase.id || '%'
      UNION SELECT site FROM live_node WHERE access::text LIKE '%' || former_passphrase.id || '%'
      UNION SELECT site FROM edit_log WHERE operations::text LIKE '%' || former_passphrase.id || '%'
      UNION SELECT key FROM site WHERE labels::text LIKE '%' || former_passphrase.id || '%'
        OR live_labels::text LIKE '%' || former_passphrase.id || '%'
    ) AS named ON true;
    DROP TABLE former_passphrase;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE passphrase RENAME TO later_passphrase;
    ALTER INDEX passphrase_pkey RENAME TO later_passphrase_pkey;
    CREATE TABLE passphrase (id text PRIMARY KEY, hash text NOT NULL, made_at timestamptz NOT NULL DEFAULT now());
    INSERT INTO passphrase SELECT DISTINCT ON (id) id, hash, made_at FROM later_passphrase ORDER BY id, made_at;
    DROP TABLE later_passphrase, familiar_place;
  `);
}
