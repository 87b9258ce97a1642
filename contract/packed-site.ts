import { z } from 'zod';
import { audienceSchema } from '#core/model/audience.ts';
import { factSchema } from '#core/model/fact.ts';
import { contentIdSchema, languageSchema, pageIdSchema, siteKeySchema } from '#core/model/ids.ts';
import { layoutSchema } from '#core/model/layout.ts';
import { menuSchema } from '#core/model/menu.ts';
import { type SiteNode, asLive, isNodeDifferent, unsetNode } from '#core/model/node.ts';
import {
  HIDDEN,
  NODE_TYPES,
  PAGE_FIELD_NAMES,
  type PageFieldName,
  type PageValues,
  pageField,
} from '#core/model/page-fields.ts';
import { oldPageDecisionSchema } from '#core/model/old-page.ts';
import { FIRST_LOOK, lookSchema } from '#core/model/look.ts';
import { pageLabelSchema } from '#core/model/page-label.ts';
import { goalIdSchema } from '#core/model/plan.ts';
import { leadsToByPageSchema, redirectSchema } from '#core/model/redirect.ts';
import { boardSchema } from '#core/model/board.ts';
import { sketchSchema } from '#core/model/sketch.ts';
import { frameHostSchema } from '#core/model/frame-host.ts';
import { sharedSectionSchema } from '#core/model/shared-section.ts';
import { siteFormSchema } from '#core/model/site-form.ts';
import { trailSettingSchema } from '#core/model/trail-setting.ts';
import { type LiveNode, type Settings, type Site, branchOf, makeSite } from '#core/model/site.ts';
import { type Slugs, isPlain, slugFromTitle } from '#core/model/slug.ts';
import { NO_TEXTS, type Texts } from '#core/model/texts.ts';

export const textsWire = z.union([z.string(), z.record(languageSchema, z.string())]);
const slugsWire = z.record(languageSchema, z.object({ text: z.string(), own: z.boolean() }));
const settingsWire = z.object({
  name: z.string(),
  language: languageSchema,
  home: pageIdSchema.nullable(),
  audiences: z.array(audienceSchema),
  labels: z.array(pageLabelSchema),
  menus: z.array(menuSchema),
  layouts: z.array(layoutSchema),
  facts: z.array(factSchema),
  /** Archives of earlier versions have none. */
  shared: z.array(sharedSectionSchema).default([]),
  forms: z.array(siteFormSchema).default([]),
  look: lookSchema.default(FIRST_LOOK),
  hosts: z.array(frameHostSchema).default([]),
  redirects: z.array(redirectSchema),
  trail: trailSettingSchema,
  timeZone: z.string(),
});

/** Where the value of a row is not the usual one, by row. */
export const exceptions = <Value extends z.ZodType>(value: Value) => z.record(z.string(), value);

/** The fields of a page that are packed in a way of their own; all others stand by row where they are not the usual ones. */
const PACKED_APART = ['type', 'title', 'slug', 'content', 'inMenus', 'hidden', 'inAddress'] as const;
type SparseFieldName = Exclude<PageFieldName, (typeof PACKED_APART)[number]>;
const SPARSE_FIELDS = PAGE_FIELD_NAMES.filter(
  (name): name is SparseFieldName => !(PACKED_APART as readonly string[]).includes(name),
);
/** Texts are those that are usual in a site: of its language alone. */
const TEXT_FIELDS: ReadonlySet<string> = new Set(SPARSE_FIELDS.filter((name) => pageField(name).none === NO_TEXTS));

export const nodesWire = z.object({
  id: z.array(pageIdSchema),
  /** Each node's parent: how many rows further up it stands, 0 at the top; -1: not among the rows, see `strayParent`. */
  parent: z.array(z.number().int()),
  order: z.array(z.string()),
  /** Type, in menus, hidden and in address, as one number. */
  signs: z.array(z.number().int()),
  /** A text alone is the title in the site's language. */
  title: z.array(textsWire),
  content: z.array(z.union([contentIdSchema, z.literal(0)])),
  strayParent: exceptions(pageIdSchema.nullable()),
  /** Left out where it is what the title gives. */
  slug: exceptions(slugsWire),
  removedWith: exceptions(pageIdSchema),
  ...(Object.fromEntries(
    SPARSE_FIELDS.map((name) => [name, exceptions(TEXT_FIELDS.has(name) ? textsWire : pageField(name).kept)]),
  ) as Record<SparseFieldName, z.ZodRecord<z.ZodString, z.ZodUnknown>>),
});
export type NodesWire = z.infer<typeof nodesWire>;

/**
 * A site as archives have it: by columns, in tree order, with what is usual left out. The live state of a
 * node is one digit where it follows from the draft, and a node of its own where it differs.
 */
export const packedSiteSchema = z.object({
  key: siteKeySchema,
  revision: z.number().int(),
  settings: settingsWire,
  liveSettings: settingsWire.nullable(),
  goals: z.array(z.object({ id: goalIdSchema, statement: z.string(), audience: z.string(), measure: z.string() })),
  /** A site that was archived before there were practice pages has none. */
  practice: pageIdSchema.nullable().default(null),
  /** A site that was archived before there were sketches and boards has none. */
  sketches: z.array(sketchSchema).default([]),
  boards: z.array(boardSchema).default([]),
  /** What was decided about addresses of the old site. */
  oldPages: z.array(z.tuple([z.string(), oldPageDecisionSchema])),
  nodes: nodesWire,
  /** One digit a node: 0 never live, 1 live as drafted, 2 live as in `liveNodes`, 3 retired as in `liveNodes`, 4 retired as drafted. */
  live: z.string().regex(/^[0-4]*$/),
  liveNodes: nodesWire,
  /** Where the addresses of pages lead that were taken down; those that are not named lead to the page above. */
  leadsTo: leadsToByPageSchema,
});
export type PackedSite = z.infer<typeof packedSiteSchema>;

/** Packs a site. `unpackSite` gives back the same one. */
export function packSite(site: Site, revision: number): PackedSite {
  const standing = branchOf(site, null).map((id) => site.nodes.get(id)!);
  const removed = [...site.nodes.values()].filter((node) => node.removedWith !== null);
  const nodes = [...standing, ...removed];
  const apart: SiteNode[] = [];
  const digits = nodes.map((node) => {
    const entry = site.live.get(node.id);
    if (!entry) return 0;
    if (node.removedWith === null && isSame(node, entry.node)) return entry.retired ? 4 : 1;
    apart.push(entry.node);
    return entry.retired ? 3 : 2;
  });
  // A page that was added, made live and then undone is live without a draft: its state stands after the others.
  const stray = [...site.live.values()].filter((entry) => !site.nodes.has(entry.node.id));
  for (const entry of stray) {
    apart.push(entry.node);
    digits.push(entry.retired ? 3 : 2);
  }
  return {
    key: site.key,
    revision,
    settings: packSettings(site.settings),
    liveSettings: site.liveSettings && packSettings(site.liveSettings),
    goals: [...site.goals],
    practice: site.practice,
    sketches: [...site.sketches],
    boards: [...site.boards],
    oldPages: [...site.oldPages],
    nodes: packNodes(nodes, site.settings.language),
    live: digits.join(''),
    liveNodes: packNodes(apart, site.settings.language),
    leadsTo: Object.fromEntries(
      [...site.live].flatMap(([id, { leadsTo }]) => (leadsTo === undefined ? [] : [[id, leadsTo]])),
    ),
  };
}

export function unpackSite(packed: PackedSite): Site {
  const { language } = packed.settings;
  const nodes = unpackNodes(packed.nodes, language);
  const apart = unpackNodes(packed.liveNodes, language);
  const live: LiveNode[] = [];
  let next = 0;
  for (let row = 0; row < packed.live.length; row++) {
    const digit = packed.live[row];
    if (digit === '0') continue;
    const node = digit === '1' || digit === '4' ? asLive(nodes[row]!) : apart[next++]!;
    const leadsTo = packed.leadsTo[node.id];
    live.push({ node, retired: digit === '3' || digit === '4', ...(leadsTo !== undefined && { leadsTo }) });
  }
  return makeSite(packed.key, packed.settings, nodes, live, packed.liveSettings, {
    goals: packed.goals,
    practice: packed.practice,
    sketches: packed.sketches,
    boards: packed.boards,
    oldPages: packed.oldPages,
  });
}

const packSettings = (settings: Settings): z.infer<typeof settingsWire> => ({
  ...settings,
  audiences: settings.audiences.map((one) => ({ ...one, includes: [...one.includes] })),
  labels: [...settings.labels],
  menus: settings.menus as z.infer<typeof menuSchema>[],
  layouts: [...settings.layouts],
  facts: [...settings.facts],
  shared: [...settings.shared],
  forms: [...settings.forms],
  look: settings.look,
  hosts: [...settings.hosts],
  redirects: [...settings.redirects],
});

const isSame = (a: SiteNode, b: SiteNode): boolean => !isNodeDifferent(a, b) && a.order === b.order;

function packNodes(nodes: readonly SiteNode[], language: string): NodesWire {
  const wire: NodesWire = {
    id: [],
    parent: [],
    order: [],
    signs: [],
    title: [],
    content: [],
    strayParent: {},
    slug: {},
    removedWith: {},
    ...(Object.fromEntries(SPARSE_FIELDS.map((name) => [name, {}])) as Record<
      SparseFieldName,
      Record<string, unknown>
    >),
  };
  const rows = new Map(nodes.map((node, row) => [node.id, row]));
  nodes.forEach((node, row) => {
    const above = node.parent === null ? row : rows.get(node.parent);
    wire.id.push(node.id);
    wire.parent.push(above === undefined || above > row ? -1 : row - above);
    if (above === undefined || above > row) wire.strayParent[row] = node.parent;
    wire.order.push(node.order);
    wire.signs.push(signsOf(node));
    wire.title.push(packTexts(node.title, language));
    wire.content.push(node.content ?? 0);
    if (!isSlugClear(node)) wire.slug[row] = node.slug;
    for (const name of SPARSE_FIELDS) {
      const value = node[name];
      const field = pageField(name);
      if (field.isSame(value, field.none)) continue;
      wire[name][row] = TEXT_FIELDS.has(name) ? packTexts(value as Texts, language) : field.toKept(value);
    }
    if (node.removedWith !== null) wire.removedWith[row] = node.removedWith;
  });
  return wire;
}

function unpackNodes(wire: NodesWire, language: string): SiteNode[] {
  const exceptional = sparseValues(wire, language);
  return wire.id.map((id, row): SiteNode => {
    const signs = wire.signs[row]!;
    const title = unpackTexts(wire.title[row]!, language);
    const type = NODE_TYPES[signs & 3]!;
    const up = wire.parent[row]!;
    const content = wire.content[row]!;
    const parent = up === -1 ? wire.strayParent[row]! : up === 0 ? null : wire.id[row - up]!;
    const node = unsetNode();
    node.id = id;
    node.parent = parent;
    node.order = wire.order[row]!;
    node.removedWith = wire.removedWith[row] ?? null;
    node.type = type;
    node.title = title;
    node.slug = wire.slug[row] ?? slugsThatFollow(type, title);
    node.inMenus = (signs & 4) !== 0;
    node.hidden = HIDDEN[(signs >> 4) & 3]!;
    node.inAddress = (signs & 8) !== 0;
    node.content = content === 0 ? null : content;
    const values = exceptional.get(row);
    return values ? Object.assign(node, values) : node;
  });
}

/** What is not the usual, by row. */
function sparseValues(wire: NodesWire, language: string): Map<number, Partial<PageValues>> {
  const byRow = new Map<number, Record<string, unknown>>();
  for (const name of SPARSE_FIELDS) {
    const isText = TEXT_FIELDS.has(name);
    const { fromKept } = pageField(name);
    for (const [row, kept] of Object.entries(wire[name])) {
      const values = byRow.get(Number(row)) ?? {};
      values[name] = isText ? unpackTexts(kept as TextsWire, language) : fromKept(kept);
      byRow.set(Number(row), values);
    }
  }
  return byRow;
}

const signsOf = (node: SiteNode): number =>
  NODE_TYPES.indexOf(node.type) |
  (node.inMenus ? 4 : 0) |
  (node.inAddress ? 8 : 0) |
  (HIDDEN.indexOf(node.hidden) << 4);

type TextsWire = z.infer<typeof textsWire>;
const packTexts = (texts: SiteNode['title'], language: string): TextsWire => {
  const languages = Object.keys(texts);
  return languages.length === 1 && languages[0] === language ? texts[language]! : texts;
};
const unpackTexts = (wire: TextsWire, language: string): SiteNode['title'] =>
  typeof wire === 'string' ? { [language]: wire } : wire;

function slugsThatFollow(type: SiteNode['type'], title: SiteNode['title']): Slugs {
  const slugs: Record<string, Slugs[string]> = {};
  if (type !== 'link')
    for (const [language, text] of Object.entries(title)) slugs[language] = { text: slugFromTitle(text), own: false };
  return slugs;
}

/** Whether a node's slugs are those that its title gives, in plain letters: a browser that opens a site has no others at hand. */
function isSlugClear(node: SiteNode): boolean {
  if (!Object.values(node.title).every(isPlain)) return false;
  const expected = slugsThatFollow(node.type, node.title);
  const languages = Object.keys(node.slug);
  return (
    languages.length === Object.keys(expected).length &&
    languages.every((language) => !node.slug[language]!.own && node.slug[language]!.text === expected[language]?.text)
  );
}
