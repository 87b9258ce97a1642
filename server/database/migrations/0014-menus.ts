import type { Knex } from 'knex';

/**
 * Menus, layouts, facts and trails of a site, and what pages say of their frame. Sites that are there get the main menu that
 * they had, which follows the tree two levels deep, in the header of the one layout, and the trails that they had.
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
    {
      id: 'standard',
      name: 'Standard',
      menus: { utility: null, header: 'main', side: null, footer: null },
      header: 'band',
      picture: '',
      hasFooter: true,
      hasTurns: false,
      trail: null,
    },
  ]);
  const facts = JSON.stringify([
    { id: 'strapline', name: 'Strapline', text: '', inFooter: false },
    { id: 'address', name: 'Address', text: '', inFooter: true },
    { id: 'telephone', name: 'Telephone', text: '', inFooter: true },
    { id: 'mail', name: 'Mail', text: '', inFooter: true },
  ]);
  const trail = JSON.stringify({
    isShown: true,
    start: 'top',
    withHome: true,
    homeLabel: {},
    leadIn: {},
    current: 'shown',
    separator: '›',
    most: null,
  });
  await knex.raw(`
    ALTER TABLE site
      ADD COLUMN menus jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_menus jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN layouts jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_layouts jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN facts jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_facts jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN trail jsonb, ADD COLUMN live_trail jsonb;
    ALTER TABLE node ADD COLUMN frame jsonb;
    ALTER TABLE live_node ADD COLUMN frame jsonb;
  `);
  await knex.raw(
    `UPDATE site SET menus = :menus::jsonb, layouts = :layouts::jsonb, facts = :facts::jsonb, trail = :trail::jsonb,
       live_facts = CASE WHEN live_name IS NULL THEN '[]' ELSE :facts::jsonb END,
       live_trail = CASE WHEN live_name IS NULL THEN NULL ELSE :trail::jsonb END,
       live_menus = CASE WHEN live_name IS NULL THEN '[]' ELSE :menus::jsonb END,
       live_layouts = CASE WHEN live_name IS NULL THEN '[]' ELSE :layouts::jsonb END`,
    { menus, layouts, facts, trail },
  );
  await knex.raw('ALTER TABLE site ALTER COLUMN trail SET NOT NULL');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE live_node DROP COLUMN frame;
    ALTER TABLE node DROP COLUMN frame;
    ALTER TABLE site DROP COLUMN menus, DROP COLUMN live_menus, DROP COLUMN layouts, DROP COLUMN live_layouts,
      DROP COLUMN facts, DROP COLUMN live_facts, DROP COLUMN trail, DROP COLUMN live_trail;
  `);
}
