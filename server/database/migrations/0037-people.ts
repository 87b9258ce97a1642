import type { Knex } from 'knex';

/**
 * Colleagues of sites, with roles on the whole site and on branches; links by which they take up an invitation or choose a new password;
 * and the log of what concerns security. Who read all sites before is a reader of each of them.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE account
      ADD COLUMN looks_after_all boolean NOT NULL DEFAULT false,
      ADD COLUMN last_seen_at timestamptz,
      ALTER COLUMN password_hash DROP NOT NULL;
    UPDATE account SET looks_after_all = role = 'manager';

    CREATE TABLE colleague (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      is_suspended boolean NOT NULL DEFAULT false,
      invited_by uuid REFERENCES account (id) ON DELETE SET NULL,
      since timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (site, account)
    );
    CREATE INDEX colleague_account ON colleague (account);
    CREATE TABLE colleague_role (
      site text NOT NULL,
      account uuid NOT NULL,
      page text,
      role text NOT NULL,
      FOREIGN KEY (site, account) REFERENCES colleague (site, account) ON UPDATE CASCADE ON DELETE CASCADE
    );
    CREATE UNIQUE INDEX colleague_role_place ON colleague_role (site, account, coalesce(page, ''));
    CREATE TABLE site_role (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      id text NOT NULL,
      name text NOT NULL,
      permissions text[] NOT NULL,
      PRIMARY KEY (site, id)
    );
    INSERT INTO colleague (site, account) SELECT site.key, account.id FROM site, account WHERE account.role <> 'manager';
    INSERT INTO colleague_role (site, account, page, role) SELECT site, account, NULL, 'reader' FROM colleague;
    ALTER TABLE account DROP COLUMN role;
    DELETE FROM session;

    CREATE TABLE account_link (
      token_hash text PRIMARY KEY,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      purpose text NOT NULL CHECK (purpose IN ('invitation', 'password')),
      site text REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      expires_at timestamptz NOT NULL
    );
    CREATE INDEX account_link_account ON account_link (account);
    CREATE INDEX session_account ON session ((sess -> 'account' ->> 'id'));

    CREATE TABLE security_log (
      id bigserial PRIMARY KEY,
      at timestamptz NOT NULL,
      event text NOT NULL,
      site text REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      by_name text,
      about text NOT NULL DEFAULT '',
      place text NOT NULL DEFAULT ''
    );
    CREATE INDEX security_log_site ON security_log (site, id) WHERE site IS NOT NULL;
    CREATE INDEX security_log_account ON security_log (account, id) WHERE account IS NOT NULL;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE security_log, account_link, site_role, colleague_role, colleague;
    DROP INDEX session_account;
    ALTER TABLE account ADD COLUMN role text NOT NULL DEFAULT 'reader';
    UPDATE account SET role = 'manager' WHERE looks_after_all;
    UPDATE account SET password_hash = '' WHERE password_hash IS NULL;
    ALTER TABLE account ALTER COLUMN role DROP DEFAULT, ALTER COLUMN password_hash SET NOT NULL,
      DROP COLUMN looks_after_all, DROP COLUMN last_seen_at;
    DELETE FROM session;
  `);
}
