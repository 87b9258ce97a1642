import type { Knex } from 'knex';

/**
 * Menus and layouts of a site. Sites that are there get the main menu that they had: it follows the tree, two levels deep,
 * in the header of the one layout.
 */
export async function up(knex: Knex): Promise<void> {
  const menus = JSON.stringify([
    {
      id: 'main',
      name: 'Main',
      root: 'site',
      levels: 2,
      order: 'tree',
      withRoot: false,
      headings: 'text',
      isByHand: false,
      exceptions: [],
      extras: [],
      arranged: null,
      takesSafe: false,
    },
  ]);
  const layouts = JSON.stringify([
    { id: 'standard', name: 'Standard', menus: { utility: null, header: 'main', side: null, footer: null } },
  ]);
  await knex.raw(`
    ALTER TABLE site
      ADD COLUMN menus jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_menus jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN layouts jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_layouts jsonb NOT NULL DEFAULT '[]';
  `);
  await knex.raw(
    `UPDATE site SET menus = :menus::jsonb, layouts = :layouts::jsonb,
       live_menus = CASE WHEN live_name IS NULL THEN '[]' ELSE :menus::jsonb END,
       live_layouts = CASE WHEN live_name IS NULL THEN '[]' ELSE :layouts::jsonb END`,
    { menus, layouts },
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site DROP COLUMN menus, DROP COLUMN live_menus, DROP COLUMN layouts, DROP COLUMN live_layouts;
  `);
}
