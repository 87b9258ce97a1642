import type { AudienceId } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import {
  type ChangeOf,
  HIDDEN,
  NODE_TYPES,
  NO_VALUES,
  type NodeType,
  PAGE_FIELD_NAMES,
  type PageChanges,
  type PageFieldName,
  pageField,
  toKeptValues,
} from '../model/page-fields.ts';
import { type Site, branchOf, childrenOf } from '../model/site.ts';
import { NO_TEXTS } from '../model/texts.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import { drawDetails } from './draw-field-edits.ts';
import {
  NOBODY,
  drawAccess,
  drawContent,
  drawFrame,
  drawNode,
  drawPlace,
  drawPlan,
  drawSlug,
  drawTarget,
  drawTexts,
  drawTitle,
} from './draw-values.ts';

/** The id of a node that neither the site nor its visitors have, counted on from its nodes. */
export function newPageId(site: Site, taken: ReadonlySet<string> = new Set()): PageId {
  for (let n = site.nodes.size; ; n++) {
    const id = `p${n}` as PageId;
    if (!site.nodes.has(id) && !site.live.has(id) && !taken.has(id)) return id;
  }
}

const emptyTitle = { en: ' ' };
/** Texts that may be empty are all drawn alike. */
type TextFieldName = {
  [Name in PageFieldName]: ChangeOf<Name> extends Record<string, string> ? Name : never;
}[Exclude<PageFieldName, 'title'>];
const TEXT_FIELDS = PAGE_FIELD_NAMES.filter((name) => name !== 'title' && pageField(name).none === NO_TEXTS);
const drawText = (draw: Draw) => drawTexts(draw, ['Short', 'Shorter', 'About this.', '']);

export const drawPageAdd: OperationDraws['page.add'] = (site, draw) => {
  const type: NodeType = draw.of([...NODE_TYPES, 'page', 'page', 'page', 'page']);
  const page = draw.odd() ? drawNode(site, draw) : newPageId(site);
  const target = type === 'link' ? !draw.odd() : draw.odd();
  return {
    name: 'page.add',
    page,
    place: drawPlace(site, draw),
    ...(type !== 'page' && { type }),
    title: draw.odd() ? emptyTitle : drawTitle(draw),
    ...Object.fromEntries(TEXT_FIELDS.map((name) => [name, draw.maybe(0.25, () => drawText(draw))])),
    slug: draw.odd() ? { en: { text: 'search', own: true } } : draw.maybe(0.3, () => drawSlug(draw)),
    inMenus: draw.maybe(0.3, () => draw.chance(0.5)),
    hidden: draw.maybe(0.15, () => draw.of(HIDDEN)),
    inAddress: draw.maybe(0.3, () => draw.chance(0.5)),
    target: target ? drawTarget(site, draw, page) : undefined,
    content: type === 'page' || draw.odd() ? draw.maybe(0.4, () => drawContent(draw)) : undefined,
    access: draw.maybe(0.25, () => drawAccess(site, draw)),
    frame: draw.maybe(0.2, () => drawFrame(site, draw)),
    details: draw.maybe(0.2, () => drawDetails(site, draw)),
    plan: draw.maybe(0.3, () => drawPlan(site, draw)),
  };
};

export const drawPageMove: OperationDraws['page.move'] = (site, draw) => {
  const page = drawNode(site, draw);
  return { name: 'page.move', page, place: drawPlace(site, draw, page) };
};

/** A page with nothing live below it, or none at all. */
export const drawPracticeSet: OperationDraws['practice.set'] = (site, draw) => {
  const free = [...site.nodes.values()].filter(
    ({ id, type, removedWith }) =>
      removedWith === null &&
      type !== 'link' &&
      !branchOf(site, id).some((one) => site.live.get(one)?.retired === false || one === site.settings.home),
  );
  const { home } = site.settings;
  if (draw.odd() && home !== null && draw.chance(0.5)) return { name: 'practice.set', page: home };
  const page = draw.odd() || free.length === 0 ? drawNode(site, draw) : draw.of(free).id;
  return { name: 'practice.set', page: site.practice !== null && draw.chance(0.3) ? null : page };
};

/** What a field can be set to, other than it is where there is a choice; undefined where the node has no such field. */
type FieldDraw<Name extends PageFieldName> = (node: SiteNode, site: Site, draw: Draw) => PageChanges[Name];
type FieldDraws<Names extends PageFieldName> = { readonly [Name in Names]: FieldDraw<Name> };
const OTHER_DRAWS: FieldDraws<Exclude<PageFieldName, TextFieldName>> = {
  type: (node, site, draw) => {
    if (draw.isOdd) return draw.of(NODE_TYPES);
    if (node.content !== null) return undefined;
    return draw.of(childrenOf(site, node.id).length > 0 ? (['page', 'heading'] as const) : NODE_TYPES);
  },
  title: (_, __, draw) => (draw.odd() ? emptyTitle : drawTitle(draw)),
  slug: (_, __, draw) => drawSlug(draw),
  inMenus: (node) => !node.inMenus,
  hidden: (node, _, draw) => draw.of(HIDDEN.filter((one) => one !== node.hidden)),
  inAddress: (node, _, draw) => (node.type === 'heading' || draw.odd() ? !node.inAddress : undefined),
  target: (node, site, draw) => (node.type === 'link' || draw.odd() ? drawTarget(site, draw, node.id) : undefined),
  content: (node, _, draw) =>
    node.type === 'page' || draw.odd() ? (node.content === null ? drawContent(draw) : null) : undefined,
  access: (_, site, draw) => drawAccess(site, draw),
  frame: (_, site, draw) => drawFrame(site, draw),
  details: (_, site, draw) => drawDetails(site, draw),
  plan: (_, site, draw) => drawPlan(site, draw),
};
export const FIELD_DRAWS: FieldDraws<PageFieldName> = {
  ...OTHER_DRAWS,
  ...(Object.fromEntries(
    TEXT_FIELDS.map((name) => [name, (_: SiteNode, __: Site, draw: Draw) => drawText(draw)]),
  ) as unknown as FieldDraws<TextFieldName>),
};

/** Fields that break a rule, most nodes' at least. */
const drawWrongFields = (node: SiteNode, site: Site, draw: Draw): PageChanges =>
  draw.of<PageChanges>([
    { title: emptyTitle },
    { slug: { en: { text: 'no slug!', own: true } } },
    { slug: { en: { text: 'search', own: true } } },
    { type: 'heading', content: drawContent(draw) },
    { type: 'link', target: null },
    { type: 'link', target: { page: drawNode(site, draw, ({ type }) => type !== 'page') } },
    { target: { page: node.id } },
    { access: { only: [NOBODY as string as AudienceId] } },
  ]);

export const drawPageSet: OperationDraws['page.set'] = (site, draw) => {
  const page = drawNode(site, draw);
  const node = site.nodes.get(page);
  const fields: PageChanges = {};
  if (node === undefined) return { name: 'page.set', page, fields: { inMenus: false } };
  if (draw.odd()) return { name: 'page.set', page, fields: drawWrongFields(node, site, draw) };
  for (const field of draw.some(PAGE_FIELD_NAMES, 1, 3)) {
    const value = FIELD_DRAWS[field](node, site, draw);
    if (value !== undefined) Object.assign(fields, { [field]: value });
  }
  // A node that becomes a link points somewhere; one that becomes anything else no longer does.
  const type = fields.type ?? node.type;
  if (type === 'link' && node.type !== 'link' && !draw.odd()) {
    fields.target = drawTarget(site, draw, page);
    delete fields.content;
  }
  if (type !== 'link' && !draw.odd()) delete fields.target;
  if (type !== 'page' && !draw.odd()) delete fields.content;
  return { name: 'page.set', page, fields };
};

/** A node of which the branch is no large part of the tree, so that trees are not felled. */
function drawTwig(site: Site, draw: Draw): PageId {
  const most = Math.max(3, site.nodes.size / 8);
  return drawNode(site, draw, ({ id }) => branchOf(site, id).length <= most);
}

export const drawPageRemove: OperationDraws['page.remove'] = (site, draw) => ({
  name: 'page.remove',
  page: drawTwig(site, draw),
  ...(draw.odd() && { forGood: true }),
});

export const drawPageCopy: OperationDraws['page.copy'] = (site, draw) => {
  const page = drawTwig(site, draw);
  const ids: Record<PageId, PageId> = {};
  const taken = new Set<string>();
  for (const one of site.nodes.has(page) ? branchOf(site, page) : []) {
    if (one !== page && draw.chance(0.2)) continue;
    const id = draw.odd() ? page : newPageId(site, taken);
    taken.add(id);
    ids[one] = id;
  }
  if (draw.odd()) delete ids[page];
  return { name: 'page.copy', page, place: drawPlace(site, draw), ids };
};

const removedTops = (site: Site): SiteNode[] => [...site.nodes.values()].filter((node) => node.removedWith === node.id);

export const drawPagePutBack: OperationDraws['page.putBack'] = (site, draw) => ({
  name: 'page.putBack',
  page: draw.odd() ? drawNode(site, draw) : (draw.maybeOf(removedTops(site))?.id ?? NOBODY),
});

export const drawPageErase: OperationDraws['page.erase'] = (site, draw) => {
  const isLive = (id: PageId) => site.live.get(id)?.retired === false;
  const live = new Set<PageId>();
  site.nodes.forEach((node) => {
    if (node.removedWith !== null && isLive(node.id)) live.add(node.removedWith);
  });
  const tops = removedTops(site).filter(({ id }) => draw.isOdd || !live.has(id));
  return {
    name: 'page.erase',
    page: draw.odd() ? drawNode(site, draw) : (draw.maybeOf(tops)?.id ?? NOBODY),
  };
};

/** What comes back of an erased branch: nodes that the site has not, removed with the first of them. */
export const drawPageRecall: OperationDraws['page.recall'] = (site, draw) => {
  const taken = new Set<string>();
  const made: PageId[] = [];
  // An odd one is there: then nothing comes back.
  const there = draw.odd() ? draw.maybeOf([...site.nodes.keys()]) : undefined;
  if (there !== undefined) made.push(there);
  else
    for (let n = draw.int(1, 3); n > 0; n--) {
      const id = newPageId(site, taken);
      taken.add(id);
      made.push(id);
    }
  const [top = NOBODY] = made;
  return {
    name: 'page.recall',
    nodes: made.map((id, at) => ({
      id,
      parent: at === 0 ? drawPlace(site, draw).parent : draw.of(made.slice(0, at)),
      order: `a${at}`,
      ...toKeptValues({
        ...NO_VALUES,
        title: { en: 'Recalled' },
        slug: { en: { text: `recalled-${at}`, own: false } },
        inMenus: draw.chance(0.5),
        hidden: draw.of(HIDDEN),
        inAddress: true,
        content: draw.chance(0.5) ? drawContent(draw) : null,
      }),
      removedWith: top,
    })),
  };
};
