import fc from 'fast-check';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { canonicalJson } from '../model/canonical-json.ts';
import { type PageId, toPageId, toSiteKey } from '../model/ids.ts';
import { toMenuId } from '../model/menu.ts';
import { type Site, makeSite, newSettings } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation, OperationName } from '../operations/operation.ts';
import { Draw } from './draw.ts';
import { DRAWS, type Step, drawEdit } from './draw-edit.ts';
import { switched } from './draw-setting-edits.ts';

export { drawEdit, type Step } from './draw-edit.ts';

/** An empty site, for tests. */
export const emptySite = (): Site => makeSite(toSiteKey('test-site'), newSettings('Test site', 'en'), []);

/** Ids that a random site has most of, anywhere in its tree. */
export const IDS: readonly PageId[] = Array.from({ length: 14 }, (_, n) => toPageId(`p${n}`));

/** The site that comes of the operations that are not refused. */
export function siteAfter(operations: readonly Operation[], site = emptySite()): Site {
  let at = site;
  for (const operation of operations) {
    const outcome = applyOperation(at, operation);
    if (outcome.ok) at = outcome.site;
  }
  return at;
}

/** The site that comes of steps, each drawn from the site that the one before left. */
export function siteAfterSteps(steps: readonly Step[], site: Site): Site {
  let at = site;
  for (const step of steps) at = siteAfter([drawEdit(at, step)], at);
  return at;
}

/** How much each operation weighs in random steps; those of the tree the most. */
const WEIGHTS: Readonly<Partial<Record<OperationName, number>>> = {
  'page.add': 8,
  'page.move': 8,
  'page.set': 14,
  'page.remove': 4,
  'page.copy': 4,
  'page.putBack': 4,
  'menu.set': 3,
  'release.make': 3,
};
/** Ways back, which no request carries, and releases, which have their own door. */
const NO_EDITS: ReadonlySet<OperationName> = new Set(['page.recall', 'release.make', 'release.takeBack']);

const stepOf = (names: readonly OperationName[]): fc.Arbitrary<Step> =>
  fc.record({
    name: fc.oneof(...names.map((name) => ({ weight: WEIGHTS[name] ?? 1, arbitrary: fc.constant(name) }))),
    seed: fc.nat(),
    isOdd: fc.nat(5).map((n) => n === 5),
  });
const NAMES = Object.keys(DRAWS) as OperationName[];

/** A step of any operation, releases and ways back among them. */
export const anyStep = stepOf(NAMES);
/** A step that a request could carry: no release, no way back. */
export const anyEditStep = stepOf(NAMES.filter((name) => !NO_EDITS.has(name)));

/** Most under the first node, anywhere, or one under the other. */
export const SHAPES = ['wide', 'mixed', 'deep'] as const;
export interface Seedling {
  readonly seed: number;
  readonly pages: number;
  readonly shape: (typeof SHAPES)[number];
}

/**
 * A site of so many nodes: audiences, labels with fields, layouts, menus (one arranged by hand), facts, shared sections, forms, goals, sketches, boards and redirects, links,
 * titles in several languages; some of it was removed, some made live, some taken down again and some edited since.
 */
export function plantSite({ seed, pages, shape }: Seedling): Site {
  const draw = new Draw(seed);
  let site = emptySite();
  const make = (name: OperationName, times: number) => {
    for (let n = 0; n < times; n++) site = siteAfterSteps([{ name, seed: draw.int(0, 1e9), isOdd: false }], site);
  };
  const sometimes = (share: number, times: number) => (draw.chance(share) ? times : 0);

  make('audience.add', sometimes(0.85, 4));
  make('label.add', sometimes(0.8, 4));
  make('field.add', sometimes(0.8, 5));
  make('layout.add', sometimes(0.7, 3));
  make('fact.add', sometimes(0.5, 1));
  make('shared.add', sometimes(0.6, 2));
  make('form.add', sometimes(0.6, 2));
  make('goal.add', sometimes(0.7, 3));
  make('sketch.add', sometimes(0.7, 3));
  make('variant.add', sometimes(0.7, 2));
  make('board.add', sometimes(0.7, 2));
  const ids = draw.some(
    Array.from({ length: pages }, (_, n) => toPageId(`p${n}`)),
    pages,
    pages,
  );
  ids.forEach((page, at) => {
    const adding = DRAWS['page.add'](site, draw);
    const parent = shape === 'mixed' ? adding.place.parent : parentIn(shape, site, ids.slice(0, at), draw);
    const plain: Operation = { name: 'page.add', page, place: { parent: null }, title: { en: `Page ${at}` } };
    const tries = [{ ...adding, page, place: { parent } }, { ...plain, place: { parent } }, plain];
    site = tries.map((one) => siteAfter([one], site)).find((one) => one !== site) ?? site;
  });
  make('menu.add', sometimes(0.9, 1));
  make('redirect.add', sometimes(0.6, 2));
  const footer = site.settings.menus.find(({ id }) => id === toMenuId('footer'));
  if (footer && draw.chance(0.8)) site = siteAfter([switched(site, footer)], site);
  make('page.remove', sometimes(0.7, draw.int(1, 3)));
  if (draw.chance(0.8)) {
    const some = draw.chance(0.5) ? waitingPages(site) : draw.some(waitingPages(site), 0, pages);
    site = planRelease(site, { pages: some, retire: [] }).after;
    make('page.set', draw.int(0, 6));
    make('page.move', draw.int(0, 2));
    make('page.remove', sometimes(0.5, 1));
    make('release.make', sometimes(0.5, 1));
  }
  return site;
}

/** The node that the next one hangs under: the first one mostly in a wide tree, the last one mostly in a deep one. */
function parentIn(shape: 'wide' | 'deep', site: Site, before: readonly PageId[], draw: Draw): PageId | null {
  const holders = before.filter((id) => site.nodes.get(id)?.type !== 'link');
  if (shape === 'deep') return (draw.chance(0.98) ? holders.at(-1) : draw.maybeOf(holders)) ?? null;
  return (draw.chance(0.6) ? holders[0] : draw.maybeOf(holders)) ?? null;
}

/** How many different sites the random ones begin with; each is planted once. */
const POOL = 500;
/** From 5 to 300 nodes, small ones more often; the smallest come first, as the simplest to look at. */
const seedlingAt = (n: number): Seedling => ({
  seed: n,
  pages: 5 + Math.floor(265 * (n / (POOL - 1)) ** 14 + 30 * (n / (POOL - 1))),
  shape: SHAPES[n % SHAPES.length]!,
});
const planted = new Map<number, Site>();

/** A planted site, without any steps since. */
export const anyPlantedSite: fc.Arbitrary<Site> = fc.nat(POOL - 1).map((n) => {
  const site = planted.get(n) ?? plantSite(seedlingAt(n));
  planted.set(n, site);
  return site;
});

/** A random site: one that was planted, and some random steps since. */
export const anySite: fc.Arbitrary<Site> = fc
  .tuple(anyPlantedSite, fc.array(anyStep, { maxLength: 12 }))
  .map(([site, steps]) => siteAfterSteps(steps, site));

/** A site as plain data, for comparing. Lists of children are in it, so that a broken index shows. */
export function plain(site: Site): unknown {
  const sorted = <V>(entries: Iterable<[string | null, V]>) =>
    Object.fromEntries(
      [...entries].map(([key, value]) => [key ?? '', value] as const).sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  return JSON.parse(
    JSON.stringify({
      settings: site.settings,
      liveSettings: site.liveSettings,
      goals: site.goals,
      practice: site.practice,
      sketches: site.sketches,
      boards: site.boards,
      oldPages: sorted(site.oldPages.entries()),
      nodes: sorted(site.nodes.entries()),
      children: sorted(site.children.entries()),
      live: sorted(site.live.entries()),
    }),
  );
}

/** Where two sites differ, in words; empty where they say the same. Quick where they share most of what they hold. */
export function differencesBetween(one: Site, other: Site): string[] {
  const found: string[] = [];
  const compare = (what: string, a: unknown, b: unknown) => {
    if (a !== b && canonicalJson(a) !== canonicalJson(b))
      found.push(`${what}: ${canonicalJson(a)} ≠ ${canonicalJson(b)}`);
  };
  compare('settings', one.settings, other.settings);
  compare('live settings', one.liveSettings, other.liveSettings);
  compare('goals', one.goals, other.goals);
  compare('practice', one.practice, other.practice);
  compare('sketches', one.sketches, other.sketches);
  compare('boards', one.boards, other.boards);
  for (const part of ['nodes', 'children', 'live', 'oldPages'] as const) {
    const [a, b] = [one[part], other[part]] as [typeof one.nodes, typeof one.nodes];
    if (a === b) continue;
    for (const key of new Set([...a.keys(), ...b.keys()])) compare(`${part} ${key}`, a.get(key), b.get(key));
  }
  return found;
}
