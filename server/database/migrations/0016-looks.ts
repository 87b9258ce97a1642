import type { Knex } from 'knex';

/** The looks at whole sites are of several kinds: that of a search engine, and that at links to outside addresses. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE engine_look RENAME TO look;
    ALTER TABLE look ADD COLUMN kind text NOT NULL DEFAULT 'engine' CHECK (kind IN ('engine', 'links'));
    ALTER TABLE look ALTER COLUMN kind DROP DEFAULT;
    ALTER TABLE look DROP CONSTRAINT engine_look_pkey;
    ALTER TABLE look ADD PRIMARY KEY (site, kind);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DELETE FROM look WHERE kind <> 'engine';
    ALTER TABLE look DROP CONSTRAINT look_pkey;
    ALTER TABLE look ADD CONSTRAINT engine_look_pkey PRIMARY KEY (site);
    ALTER TABLE look DROP COLUMN kind;
    ALTER TABLE look RENAME TO engine_look;
  `);
}
