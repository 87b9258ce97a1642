import type { AccessChange, LabelId, PassphraseId } from '../model/access.ts';
import { CLOSED_LOOKS, HELD_BACK, MENU_FOR, STANDS_IN } from '../model/access.ts';
import { type AudienceId, EVERYONE, SIGNED_OUT } from '../model/audience.ts';
import { type FrameChange, LISTING_LOOKS, LISTING_ORDERS } from '../model/frame.ts';
import type { ContentId, PageId } from '../model/ids.ts';
import type { LayoutId } from '../model/layout.ts';
import type { SiteNode } from '../model/node.ts';
import { type LabelRule, isKind } from '../model/page-label.ts';
import type { Place } from '../model/place.ts';
import { IMPORTANCE, ORIGINS, type PlanChange, READINESS } from '../model/plan.ts';
import { MAX_DEPTH, type Site, ancestorsOf, branchOf, childrenOf, isWithin, nodeAt } from '../model/site.ts';
import type { Slugs } from '../model/slug.ts';
import type { Target } from '../model/target.ts';
import type { Texts } from '../model/texts.ts';
import type { TrailSetting } from '../model/trail-setting.ts';
import type { Draw } from './draw.ts';

const TITLES = [
  'Courses',
  'Evening classes',
  'courses',
  'Search',
  'Ökonomie & Übung',
  '工房',
  '…',
  'Apply',
  '  Two   spaces ',
  'Boats “built” <here>',
  'News',
  'a very long title '.repeat(12),
];
const SLUGS = ['courses', 'apply', 'evening-classes', 'werk', 'Ünder', 'a.b', 'search'];
const LANGUAGES = ['de', 'cy-GB'];
const OUTSIDE = ['https://ferry.example/timetable', 'mailto:desk@pellow-quay.example', 'tel:01632 960 001'];
const CONTENTS = ['aaaaaaaaaaaa', 'bbbbbbbbbbbb'] as ContentId[];
const PASSPHRASES = ['passphraseOfTests1', 'passphraseOfTests2'] as PassphraseId[];
const MOMENTS = ['2026-11-01T00:00:00Z', '2026-12-01T00:00:00Z', '2027-01-01T00:00:00Z'];
export const NOBODY = 'nobody' as PageId;

const standing = new WeakMap<Site, readonly PageId[]>();

/** All that stands in the tree, in its order: asked many times of the same site. */
export function standingIn(site: Site): readonly PageId[] {
  let ids = standing.get(site);
  if (!ids) {
    ids = branchOf(site, null);
    standing.set(site, ids);
  }
  return ids;
}

/** A title: often one that others have too, so that slugs meet; in further languages now and then. */
export const drawTitle = (draw: Draw): Record<string, string> => ({
  en: draw.chance(0.6) ? draw.of(TITLES) : `Page ${draw.int(1, 400)}`,
  ...(draw.chance(0.15) && { [draw.of(LANGUAGES)]: draw.of(['Kurse', 'Cyrsiau', 'Neues']) }),
});

export const drawTexts = (draw: Draw, some: readonly string[]): Record<string, string> => ({
  [draw.chance(0.8) ? 'en' : draw.of(LANGUAGES)]: draw.of(some),
});

export const drawSlug = (draw: Draw): Slugs => ({
  en: draw.odd()
    ? { text: draw.of(['no slug!', 'search']), own: true }
    : draw.chance(0.3)
      ? { text: '', own: false }
      : { text: draw.chance(0.5) ? draw.of(SLUGS) : `slug-${draw.int(1, 200)}`, own: true },
});

/** A node that stands in the tree; an odd one is removed or not there at all. */
export function drawNode(site: Site, draw: Draw, isWanted: (node: SiteNode) => boolean = () => true): PageId {
  if (draw.odd()) {
    const removed = [...site.nodes.values()].filter((node) => node.removedWith !== null);
    return draw.chance(0.5) ? NOBODY : (draw.maybeOf(removed)?.id ?? NOBODY);
  }
  const all = standingIn(site);
  const wanted = all.filter((id) => isWanted(nodeAt(site, id)));
  return draw.maybeOf(wanted) ?? draw.maybeOf(all) ?? NOBODY;
}

export const drawPage = (site: Site, draw: Draw): PageId => drawNode(site, draw, ({ type }) => type === 'page');

/** A page that stands, or none where there is none: for references that a site must know. */
export const maybePage = (site: Site, draw: Draw): PageId | undefined =>
  draw.maybeOf(standingIn(site).filter((id) => nodeAt(site, id).type === 'page'));

/** Where a node may hang; an odd place is a link, the deepest node, a node below itself, or not there. */
export function drawPlace(site: Site, draw: Draw, moved: PageId | null = null): Place {
  const parent = drawParent(site, draw, moved);
  const siblings = childrenOf(site, parent).filter((id) => id !== moved);
  const after = draw.of([undefined, null, draw.maybeOf(siblings), draw.maybeOf(siblings)]);
  return { parent, ...(after !== undefined && { after }) };
}

function drawParent(site: Site, draw: Draw, moved: PageId | null): PageId | null {
  const all = standingIn(site);
  if (draw.isOdd && draw.chance(0.4)) {
    const links = all.filter((id) => nodeAt(site, id).type === 'link');
    const own = moved === null ? [] : all.filter((id) => isWithin(site, id, moved));
    const lowest = draw.maybeOf(all.filter((id) => ancestorsOf(site, id).length === MAX_DEPTH - 1));
    if (lowest !== undefined) return lowest;
    const places = [draw.maybeOf(links), draw.maybeOf(own), NOBODY];
    return draw.of(places.filter((id) => id !== undefined));
  }
  if (draw.chance(0.25)) return null;
  const holders = all.filter((id) => nodeAt(site, id).type !== 'link');
  const free = moved === null ? holders : holders.filter((id) => !isWithin(site, id, moved));
  return draw.maybeOf(free) ?? null;
}

export function drawTarget(site: Site, draw: Draw, of: PageId | null = null): Target {
  if (draw.odd()) return { page: drawNode(site, draw, ({ type }) => type !== 'page') };
  const page = draw.chance(0.6) ? maybePage(site, draw) : undefined;
  return page === undefined || page === of ? { url: draw.of(OUTSIDE) } : { page };
}

export const drawContent = (draw: Draw): ContentId => draw.of(CONTENTS);

/** Audiences that rules name. The site has others besides, so that some can be taken away. */
const ruled = (site: Site): AudienceId[] => site.settings.audiences.slice(0, 3).map(({ id }) => id);

export function drawAudiences(site: Site, draw: Draw, max: number): AudienceId[] {
  if (draw.odd()) return [NOBODY as string as AudienceId];
  return draw.some(ruled(site), 1, max);
}

function drawNarrowing(site: Site, draw: Draw): AccessChange {
  const named = drawAudiences(site, draw, 2);
  const [from, until] = draw.of([
    [MOMENTS[0], MOMENTS[1]],
    [MOMENTS[1], null],
    [null, MOMENTS[1]],
    [null, null],
    draw.isOdd ? [MOMENTS[2], MOMENTS[0]] : [MOMENTS[1], MOMENTS[2]],
  ] as const);
  const parts: AccessChange[] = [
    {
      only:
        named.length === 0 || draw.chance(0.2) ? null : draw.chance(0.2) ? [draw.of([EVERYONE, SIGNED_OUT])] : named,
    },
    { only: named.length === 0 ? null : named },
    { except: drawAudiences(site, draw, 1) },
    { closedLook: draw.of([...CLOSED_LOOKS, null]) },
    { from: from ?? null, until: until ?? null },
    { engines: draw.of(HELD_BACK) },
    { search: draw.of(HELD_BACK) },
  ];
  return Object.assign({}, ...draw.some(parts, 1, 2)) as AccessChange;
}

export const drawLabelRule = (site: Site, draw: Draw): LabelRule => ({ ...drawNarrowing(site, draw) }) as LabelRule;

function drawLabels(site: Site, draw: Draw): LabelId[] {
  if (draw.odd()) {
    const kinds = site.settings.labels.filter(isKind);
    return kinds.length < 2 || draw.chance(0.3) ? [NOBODY as string as LabelId] : kinds.map(({ id }) => id);
  }
  const some = draw.some(site.settings.labels.slice(0, 3), 1, 2);
  const kind = some.find(isKind);
  return some.filter((one) => one === kind || !isKind(one)).map(({ id }) => id);
}

export function drawAccess(site: Site, draw: Draw): AccessChange {
  if (draw.chance(0.5)) return drawNarrowing(site, draw);
  const parts: AccessChange[] = [
    { standsAlone: draw.chance(0.6) },
    { standsIn: draw.of([...STANDS_IN, null]) },
    { menuFor: draw.of([...MENU_FOR, null]) },
    { passphrase: draw.chance(0.6) ? draw.of(PASSPHRASES) : null },
    ...Array.from({ length: 3 }, () => ({ labels: drawLabels(site, draw) })),
  ];
  return Object.assign({}, drawNarrowing(site, draw), draw.of(parts)) as AccessChange;
}

export const drawTrail = (site: Site, draw: Draw): TrailSetting => ({
  isShown: draw.chance(0.8),
  start: draw.of(['top', { up: draw.int(1, 3) }, { page: drawNode(site, draw) }] as const),
  withHome: draw.chance(0.5),
  homeLabel: draw.of<Texts>([{}, { en: 'Start' }]),
  leadIn: draw.of<Texts>([{}, { en: 'You are here:' }]),
  current: draw.of(['shown', 'linked', 'left out'] as const),
  separator: draw.of(['/', '›']),
  most: draw.of([null, 3]),
});

export function drawFrame(site: Site, draw: Draw): FrameChange {
  const layout = draw.odd() ? (NOBODY as string as LayoutId) : draw.of(site.settings.layouts.slice(0, 3)).id;
  const parts: FrameChange[] = [
    { layout: draw.chance(0.2) ? null : layout },
    { trail: { setting: drawTrail(site, draw), reach: draw.of(['page', 'branch'] as const) } },
    { trail: null },
    { listing: { look: draw.of(LISTING_LOOKS), levels: draw.int(1, 3), order: draw.of(LISTING_ORDERS) } },
    { date: draw.of(['2026-11-01', '2026-12-24', null]) },
  ];
  return Object.assign({}, ...draw.some(parts, 1, 2)) as FrameChange;
}

export function drawPlan(site: Site, draw: Draw): PlanChange {
  const page = maybePage(site, draw);
  const parts: PlanChange[] = [
    { origin: draw.of([...ORIGINS, null]) },
    { purpose: draw.of(['', ' For the curious. ', 'To apply']) },
    { owner: draw.of(['', 'Bram  Hollis', 'Ines']) },
    { due: draw.of([null, '2027-03-01', '2026-12-24']) },
    { readiness: draw.of(READINESS) },
    { importance: draw.of([...IMPORTANCE, null]) },
    { words: draw.of([0, 300, null]) },
    { goals: draw.some(site.goals, 0, 2).map(({ id }) => id) },
    { oldAddresses: draw.some(['/old', '/older', '/oldest'], 0, 2) },
    { references: page === undefined ? [] : [page, page] },
    { notes: draw.chance(0.5) ? drawContent(draw) : null },
    { sketch: draw.maybeOf(site.sketches)?.id ?? null },
    { questions: { [draw.of(['q1', 'q2'])]: draw.chance(0.2) ? null : drawQuestion(draw) } },
  ];
  return Object.assign({}, ...draw.some(parts, 1, 3)) as PlanChange;
}

const drawQuestion = (draw: Draw) => ({
  text: draw.of(['Who writes it?', 'Is it needed?']),
  by: 'Ines',
  at: draw.of(['2026-11-25T09:00:00Z', '2026-11-25T10:00:00Z']),
  answer: draw.of(['', 'Yes.']),
  settledBy: draw.of([null, 'Ines']),
});

/** A name that settings go by; an odd one is empty. */
export const drawName = (draw: Draw, some: readonly string[]): string =>
  draw.odd() ? ' ' : `${draw.of(some)}${draw.chance(0.5) ? ` ${draw.int(1, 99)}` : ''}`;

/** Which of a list a new one follows: the last where it is left out. */
export const drawAfter = <Id extends string>(list: readonly { readonly id: Id }[], draw: Draw): { after?: Id | null } =>
  draw.of([{}, { after: null }, { after: draw.maybeOf(list)?.id ?? null }]);

/** The id of something new: the first of the usual ones that is free, else a numbered one. An odd one is taken. */
export function drawNewId<Id extends string>(
  list: readonly { readonly id: Id }[],
  usual: readonly string[],
  draw: Draw,
): Id {
  if (draw.odd() && list.length > 0) return draw.of(list).id;
  const taken = new Set<string>(list.map(({ id }) => id));
  for (let n = 0; ; n++) {
    const id = usual[n] ?? `new${n}`;
    if (!taken.has(id)) return id as Id;
  }
}

/** One of a list by its id; an odd one is not there. */
export const drawId = <Id extends string>(list: readonly { readonly id: Id }[], draw: Draw): Id =>
  draw.odd() ? ('nowhere' as Id) : (draw.maybeOf(list)?.id ?? ('nowhere' as Id));
