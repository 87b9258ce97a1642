import type { Knex } from 'knex';

/** The columns of a node, for the draft and for the live state alike. `COLLATE "C"` sorts order keys by code unit. */
const NODE_COLUMNS = `
  site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
  id text NOT NULL,
  parent text,
  sort_order text COLLATE "C" NOT NULL,
  type text NOT NULL CHECK (type IN ('page', 'heading', 'link')),
  title jsonb NOT NULL,
  label jsonb NOT NULL,
  slug jsonb NOT NULL,
  description jsonb NOT NULL,
  in_menus boolean NOT NULL,
  hidden text NOT NULL CHECK (hidden IN ('no', 'page', 'branch')),
  in_address boolean NOT NULL,
  target jsonb,
  content text,
  PRIMARY KEY (site, id)`;

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE account (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      email text NOT NULL,
      password_hash text NOT NULL,
      role text NOT NULL,
      is_demo boolean NOT NULL DEFAULT false,
      created_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE UNIQUE INDEX account_email ON account (lower(email));

    CREATE TABLE installation (
      name text PRIMARY KEY,
      value text NOT NULL
    );

    CREATE TABLE first_account_link (
      token_hash text PRIMARY KEY,
      expires_at timestamptz NOT NULL
    );

    CREATE TABLE session (
      sid varchar PRIMARY KEY,
      sess json NOT NULL,
      expire timestamp(6) NOT NULL
    );
    CREATE INDEX session_expire ON session (expire);

    CREATE TABLE site (
      key text PRIMARY KEY,
      name text NOT NULL,
      language text NOT NULL,
      home text,
      live_name text,
      live_language text,
      live_home text,
      revision bigint NOT NULL DEFAULT 0,
      release bigint NOT NULL DEFAULT 0,
      made_at timestamptz NOT NULL DEFAULT now(),
      changed_at timestamptz NOT NULL DEFAULT now(),
      changed_by uuid REFERENCES account (id) ON DELETE SET NULL
    );

    CREATE TABLE node (${NODE_COLUMNS}, removed_with text) WITH (fillfactor = 80);
    CREATE TABLE live_node (${NODE_COLUMNS}, is_retired boolean NOT NULL DEFAULT false, live_at timestamptz NOT NULL DEFAULT now());

    CREATE TABLE content (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      id text NOT NULL,
      document jsonb NOT NULL,
      html text NOT NULL,
      PRIMARY KEY (site, id)
    );

    CREATE TABLE edit_log (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      revision bigint NOT NULL,
      at timestamptz NOT NULL,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      kind text NOT NULL CHECK (kind IN ('edit', 'undo', 'redo', 'release')),
      request text,
      words text NOT NULL,
      operations jsonb NOT NULL,
      inverse jsonb NOT NULL,
      cells text[] NOT NULL,
      PRIMARY KEY (site, revision)
    );
    CREATE UNIQUE INDEX edit_log_request ON edit_log (site, request) WHERE request IS NOT NULL;

    CREATE TABLE undo_step (
      id bigserial PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      revision bigint NOT NULL,
      is_undone boolean NOT NULL DEFAULT false,
      operations jsonb NOT NULL,
      words text NOT NULL
    );
    CREATE INDEX undo_step_of ON undo_step (site, account, is_undone, id);

    CREATE TABLE release (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      number bigint NOT NULL,
      revision bigint NOT NULL,
      at timestamptz NOT NULL,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      pages integer NOT NULL,
      retired integer NOT NULL,
      PRIMARY KEY (site, number)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    'DROP TABLE release, undo_step, edit_log, content, live_node, node, site, session, first_account_link, installation, account CASCADE',
  );
}
