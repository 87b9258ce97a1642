import { FIRST_LOOK, SCHEME_NAMES } from '../model/look.ts';
import {
  ENTRY_ACTIONS,
  ENTRY_ORDERS,
  PINS,
  type EntryId,
  type EntryTarget,
  type Menu,
  allEntries,
  entryOf,
} from '../model/menu.ts';
import { arrangeByHand, followTree } from '../arrange/switch-menu.ts';
import type { AudienceId } from '../model/audience.ts';
import { HEADER_STYLES, MENU_SLOTS } from '../model/layout.ts';
import type { LabelId } from '../model/access.ts';
import { ABOUT, isKind } from '../model/page-label.ts';
import type { Destination } from '../model/redirect.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { derivedOf } from '../derive/derived.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import {
  drawContent,
  NOBODY,
  drawAfter,
  drawAudiences,
  drawId,
  drawLabelRule,
  drawName,
  drawNewId,
  drawNode,
  drawPage,
  drawTexts,
  drawTrail,
  maybePage,
} from './draw-values.ts';

const pick = <Fields extends object>(draw: Draw, fields: Fields): Partial<Fields> =>
  Object.fromEntries(draw.some(Object.entries(fields), 1, 2)) as Partial<Fields>;

/** A heading or a link, which cannot be the home page, where there is one. */
const drawNoPage = (site: Site, draw: Draw) =>
  draw.maybeOf([...site.nodes.values()].filter(({ type, removedWith }) => type !== 'page' && removedWith === null))
    ?.id ?? drawNode(site, draw);

export const drawSiteSet: OperationDraws['site.set'] = (site, draw) => ({
  name: 'site.set',
  fields: pick(draw, {
    name: drawName(draw, ['Pellow', 'Tern']),
    home: draw.chance(0.2) ? null : draw.odd() ? drawNoPage(site, draw) : drawPage(site, draw),
    timeZone: draw.odd() ? 'Quay/Side' : draw.of(['Europe/London', 'Europe/Berlin', 'UTC']),
    trail: drawTrail(site, draw),
    language: draw.of(['en', 'en', 'de']),
    look: {
      ...FIRST_LOOK,
      colour: draw.of(['#0e6470', '#ffe600', '#803050']),
      pair: draw.of(['quay', 'office', 'museum']),
      header: draw.of(SCHEME_NAMES),
    },
    hosts: draw.some(['player.example', 'map.example:8443', 'film.example'], 0, 2),
  }),
});

const AUDIENCES = ['staff', 'students', 'governors', 'crew', 'guests'];
/** Audiences that stand before it, so that none takes in itself; an odd one may. */
function drawIncludes(site: Site, draw: Draw, of: AudienceId): AudienceId[] {
  const all = site.settings.audiences.map(({ id }) => id);
  const at = all.indexOf(of);
  return draw.odd()
    ? [draw.chance(0.5) ? of : (NOBODY as string as AudienceId)]
    : draw.some(at === -1 ? all : all.slice(0, at), 0, 2);
}

export const drawAudienceAdd: OperationDraws['audience.add'] = (site, draw) => {
  const audience = drawNewId<AudienceId>(site.settings.audiences, AUDIENCES, draw);
  return {
    name: 'audience.add',
    audience,
    ...drawAfter(site.settings.audiences, draw),
    title: drawName(draw, ['Staff', 'Readers']),
    includes: draw.maybe(0.4, () => drawIncludes(site, draw, audience)),
    landing: draw.maybe(0.2, () => maybePage(site, draw)),
  };
};
export const drawAudienceSet: OperationDraws['audience.set'] = (site, draw) => {
  const audience = drawId(site.settings.audiences, draw);
  return {
    name: 'audience.set',
    audience,
    fields: pick(draw, {
      title: drawName(draw, ['People', 'Crew']),
      includes: drawIncludes(site, draw, audience),
      landing: draw.chance(0.3) ? null : (maybePage(site, draw) ?? null),
    }),
  };
};
export const drawAudienceRemove: OperationDraws['audience.remove'] = (site, draw) => ({
  name: 'audience.remove',
  audience: drawId(site.settings.audiences, draw),
});

export const drawLabelAdd: OperationDraws['label.add'] = (site, draw) => ({
  name: 'label.add',
  label: drawNewId(site.settings.labels, ['handbook', 'archive', 'notice', 'spare'], draw),
  ...drawAfter(site.settings.labels, draw),
  title: drawName(draw, ['Handbook', 'Old papers']),
  rule: draw.maybe(0.7, () => drawLabelRule(site, draw)),
  about: draw.maybe(0.5, () => draw.of(ABOUT)),
});
/** A label beside the kind of some page: made a kind, it would be a second one. */
function besideKind(site: Site): LabelId | undefined {
  const kinds = new Set(site.settings.labels.filter(isKind).map(({ id }) => id));
  return [...site.nodes.values()]
    .map(({ access }) => access?.labels ?? [])
    .find((labels) => labels.length > 1 && labels.some((id) => kinds.has(id)))
    ?.find((id) => !kinds.has(id));
}

export const drawLabelSet: OperationDraws['label.set'] = (site, draw) => ({
  name: 'label.set',
  ...(draw.odd() && besideKind(site)
    ? { label: besideKind(site)!, fields: { about: 'course' } }
    : drawLabelFields(site, draw)),
});
const drawLabelFields = (
  site: Site,
  draw: Draw,
): Pick<ReturnType<OperationDraws['label.set']>, 'label' | 'fields'> => ({
  label: drawId(site.settings.labels, draw),
  fields: pick(draw, {
    title: drawName(draw, ['Handbook', 'Papers']),
    rule: drawLabelRule(site, draw),
    about: draw.chance(0.4) ? null : draw.of(ABOUT),
    pageOutline: draw.chance(0.3) ? null : drawSharedText(draw),
  }),
});
export const drawLabelRemove: OperationDraws['label.remove'] = (site, draw) => ({
  name: 'label.remove',
  label: drawId(site.settings.labels, draw),
});

const drawMenuRoot = (site: Site, draw: Draw): Menu['root'] =>
  draw.of(['site', 'site', 'section', { page: drawNode(site, draw) }]);

export const drawMenuAdd: OperationDraws['menu.add'] = (site, draw) => ({
  name: 'menu.add',
  menu: drawNewId(site.settings.menus, ['main', 'footer', 'quick'], draw),
  ...drawAfter(site.settings.menus, draw),
  title: drawName(draw, ['Footer', 'Quick links']),
  fields: draw.maybe(0.5, () => ({ root: drawMenuRoot(site, draw), levels: draw.int(1, 3) })),
});
export const drawMenuSet: OperationDraws['menu.set'] = (site, draw) => {
  const id = drawId(site.settings.menus, draw);
  const menu = site.settings.menus.find((one) => one.id === id);
  if (menu && draw.chance(menu.isByHand ? 0.05 : 0.5)) return switched(site, menu);
  return {
    name: 'menu.set',
    menu: id,
    fields: pick(draw, {
      title: drawName(draw, ['Below', 'Above']),
      root: drawMenuRoot(site, draw),
      levels: draw.int(1, 6),
      order: draw.of(ENTRY_ORDERS),
      withRoot: draw.chance(0.5),
      headings: draw.of(['text', 'first page'] as const),
      takesSafe: draw.chance(0.5),
    }),
  };
};
/** The menu arranged by hand where it follows the tree, and the other way about. */
export const switched = (site: Site, menu: Menu) =>
  (menu.isByHand ? followTree(site, menu).operation : arrangeByHand(site, menu)) as Extract<
    Operation,
    { name: 'menu.set' }
  >;
export const drawMenuRemove: OperationDraws['menu.remove'] = (site, draw) => ({
  name: 'menu.remove',
  menu: drawId(site.settings.menus, draw),
});

/** A menu, one that was arranged by hand rather. */
function drawMenuOfEntries(site: Site, draw: Draw): Menu | undefined {
  const byHand = site.settings.menus.filter((menu) => menu.isByHand);
  return draw.maybeOf(draw.chance(0.7) && byHand.length > 0 ? byHand : site.settings.menus);
}
const idsIn = (menu: Menu | undefined): EntryId[] =>
  menu === undefined
    ? []
    : menu.isByHand
      ? [...allEntries(menu.arranged?.entries ?? [])].map(({ id }) => id)
      : menu.extras.map(({ id }) => id);
const menuIdOf = (menu: Menu | undefined, site: Site, draw: Draw) =>
  menu && !draw.odd() ? menu.id : drawId(site.settings.menus, draw);
const drawEntry = (ids: readonly EntryId[], draw: Draw): EntryId =>
  draw.odd() ? ('nowhere' as EntryId) : (draw.maybeOf(ids) ?? ('nowhere' as EntryId));
const drawOnly = (site: Site, draw: Draw): AudienceId[] | null => {
  const named = draw.chance(0.3) ? drawAudiences(site, draw, 2) : [];
  return named.length === 0 ? null : named;
};

export const drawEntryAdd: OperationDraws['entry.add'] = (site, draw) => {
  const menu = drawMenuOfEntries(site, draw);
  const there = idsIn(menu);
  const page = drawNode(site, draw, ({ id }) => !there.includes(entryOf(id)));
  const isOfPage = draw.chance(0.5);
  const target: EntryTarget = isOfPage
    ? { page }
    : draw.of([{ url: 'https://ferry.example/' }, { does: draw.of(ENTRY_ACTIONS) }, null]);
  const entry = isOfPage
    ? entryOf(page)
    : drawNewId<EntryId>(
        there.map((id) => ({ id })),
        ['e1', 'e2', 'e3'],
        draw,
      );
  const isUnder = draw.chance(0.4) && there.length > 0;
  return {
    name: 'entry.add',
    menu: menuIdOf(menu, site, draw),
    entry,
    label: isOfPage ? draw.maybe(0.3, () => ({ en: 'Words' })) : draw.odd() ? {} : { en: 'Words' },
    target,
    only: draw.maybe(0.3, () => drawOnly(site, draw)),
    under: isUnder ? drawEntry(there, draw) : null,
    ...drawAfter(
      there.map((id) => ({ id })),
      draw,
    ),
    pin: draw.maybe(0.3, () => draw.of(PINS)),
  };
};
export const drawEntrySet: OperationDraws['entry.set'] = (site, draw) => {
  const menu = drawMenuOfEntries(site, draw);
  const there = idsIn(menu);
  const entry = menu?.isByHand || draw.chance(0.3) ? drawEntry(there, draw) : entryOf(drawNode(site, draw));
  return {
    name: 'entry.set',
    menu: menuIdOf(menu, site, draw),
    entry,
    fields: {
      ...draw.maybe(0.6, () => ({ label: drawTexts(draw, ['Own words', 'Other words', '']) })),
      ...draw.maybe(0.4, () => ({ only: drawOnly(site, draw) })),
      ...draw.maybe(0.5, () => ({ isLeftOut: draw.chance(0.6) })),
      ...draw.maybe(0.5, () => ({ pin: draw.of([...PINS, null]) })),
    },
  };
};
export const drawEntryMove: OperationDraws['entry.move'] = (site, draw) => {
  const menu = draw.maybeOf(site.settings.menus.filter((one) => one.isByHand)) ?? drawMenuOfEntries(site, draw);
  const there = idsIn(menu);
  return {
    name: 'entry.move',
    menu: menuIdOf(menu, site, draw),
    entry: drawEntry(there, draw),
    under: draw.chance(0.5) ? null : drawEntry(there, draw),
    ...drawAfter(
      there.map((id) => ({ id })),
      draw,
    ),
  };
};
export const drawEntryRemove: OperationDraws['entry.remove'] = (site, draw) => {
  const filled = site.settings.menus.filter((one) => idsIn(one).length > 0);
  const menu = draw.maybeOf(filled) ?? drawMenuOfEntries(site, draw);
  return { name: 'entry.remove', menu: menuIdOf(menu, site, draw), entry: drawEntry(idsIn(menu), draw) };
};

const drawLayoutFields = (site: Site, draw: Draw) =>
  pick(draw, {
    header: draw.of(HEADER_STYLES),
    picture: draw.of(['', 'https://pictures.example/quay.jpg']),
    hasFooter: draw.chance(0.5),
    hasTurns: draw.chance(0.5),
    trail: draw.chance(0.3) ? null : drawTrail(site, draw),
    menus: Object.fromEntries(
      MENU_SLOTS.map((slot) => [slot, draw.chance(0.4) ? null : drawId(site.settings.menus, draw)]),
    ) as Record<(typeof MENU_SLOTS)[number], Menu['id'] | null>,
  });
export const drawLayoutAdd: OperationDraws['layout.add'] = (site, draw) => ({
  name: 'layout.add',
  layout: drawNewId(site.settings.layouts, ['standard', 'bare', 'tall', 'spare'], draw),
  ...drawAfter(site.settings.layouts, draw),
  title: drawName(draw, ['Bare', 'Tall']),
  fields: draw.maybe(0.6, () => drawLayoutFields(site, draw)),
});
export const drawLayoutSet: OperationDraws['layout.set'] = (site, draw) => ({
  name: 'layout.set',
  layout: drawId(site.settings.layouts, draw),
  fields: { ...drawLayoutFields(site, draw), ...draw.maybe(0.2, () => ({ title: drawName(draw, ['Pages']) })) },
});
export const drawLayoutRemove: OperationDraws['layout.remove'] = (site, draw) => ({
  name: 'layout.remove',
  layout: drawId(site.settings.layouts, draw),
});

const FACTS = ['01632 960 001', '01632 960 002', ''];
export const drawFactAdd: OperationDraws['fact.add'] = (site, draw) => ({
  name: 'fact.add',
  fact: drawNewId(site.settings.facts, ['telephone', 'ferry', 'hours'], draw),
  ...drawAfter(site.settings.facts, draw),
  title: drawName(draw, ['Ferry', 'Hours']),
  text: draw.maybe(0.5, () => draw.of(FACTS)),
  inFooter: draw.maybe(0.5, () => draw.chance(0.5)),
  inHeader: draw.maybe(0.5, () => draw.chance(0.5)),
});
export const drawFactSet: OperationDraws['fact.set'] = (site, draw) => ({
  name: 'fact.set',
  fact: drawId(site.settings.facts, draw),
  fields: pick(draw, {
    title: drawName(draw, ['Telephone', 'Desk']),
    text: `${draw.of(FACTS)}${draw.int(1, 9)}`,
    inFooter: draw.chance(0.5),
    inHeader: draw.chance(0.5),
  }),
});
export const drawFactRemove: OperationDraws['fact.remove'] = (site, draw) => ({
  name: 'fact.remove',
  fact: drawId(site.settings.facts, draw),
});

const drawSharedText = (draw: Draw) => draw.maybe(0.7, () => drawContent(draw)) ?? null;
export const drawSharedAdd: OperationDraws['shared.add'] = (site, draw) => ({
  name: 'shared.add',
  shared: drawNewId(site.settings.shared, ['hours', 'ferry', 'safety'], draw),
  ...drawAfter(site.settings.shared, draw),
  title: drawName(draw, ['Opening hours', 'Safety on the water']),
  content: draw.maybe(0.6, () => drawSharedText(draw)),
});
export const drawSharedSet: OperationDraws['shared.set'] = (site, draw) => ({
  name: 'shared.set',
  shared: drawId(site.settings.shared, draw),
  fields: pick(draw, { title: drawName(draw, ['Opening hours', 'How to get here']), content: drawSharedText(draw) }),
});
export const drawSharedRemove: OperationDraws['shared.remove'] = (site, draw) => ({
  name: 'shared.remove',
  shared: drawId(site.settings.shared, draw),
});

function drawDestination(site: Site, draw: Draw): Destination {
  if (draw.odd()) return { page: drawNode(site, draw, ({ type }) => type !== 'page') };
  const page = maybePage(site, draw);
  return draw.of(['gone' as const, { url: 'https://ferry.example/timetable' }, page ? { page } : ('gone' as const)]);
}
export const drawRedirectAdd: OperationDraws['redirect.add'] = (site, draw) => {
  const inUse = draw.maybeOf(derivedOf(site).addresses.filter((one): one is string => one !== null && one.length > 1));
  const from = draw.odd()
    ? (draw.of([inUse, draw.maybeOf(site.settings.redirects)?.from]) ?? '/old')
    : draw.of([`/old-${draw.int(1, 30)}`, `/former/${draw.int(1, 30)}`, `/archive-${draw.int(1, 9)}/*`]);
  return {
    name: 'redirect.add',
    redirect: drawNewId(site.settings.redirects, ['r1', 'r2', 'r3'], draw),
    // Only ways back say what it follows, so it is left out most of the time.
    ...(draw.odd() && drawAfter(site.settings.redirects, draw)),
    from,
    to: drawDestination(site, draw),
  };
};
export const drawRedirectSet: OperationDraws['redirect.set'] = (site, draw) => ({
  name: 'redirect.set',
  redirect: drawId(site.settings.redirects, draw),
  to: drawDestination(site, draw),
});
export const drawRedirectRemove: OperationDraws['redirect.remove'] = (site, draw) => ({
  name: 'redirect.remove',
  redirect: drawId(site.settings.redirects, draw),
});

export const drawGoalAdd: OperationDraws['goal.add'] = (site, draw) => ({
  name: 'goal.add',
  goal: drawNewId(site.goals, ['g1', 'g2', 'g3'], draw),
  ...drawAfter(site.goals, draw),
  statement: drawName(draw, ['More applicants', 'Fewer calls']),
  measure: draw.maybe(0.5, () => '20 a year'),
});
export const drawGoalSet: OperationDraws['goal.set'] = (site, draw) => ({
  name: 'goal.set',
  goal: drawId(site.goals, draw),
  fields: pick(draw, {
    statement: drawName(draw, ['More', 'Fewer']),
    audience: draw.of(['parents', 'students']),
    measure: `${draw.int(1, 99)} a year`,
  }),
});
export const drawGoalRemove: OperationDraws['goal.remove'] = (site, draw) => ({
  name: 'goal.remove',
  goal: drawId(site.goals, draw),
});

export const drawOldPageDecide: OperationDraws['oldPage.decide'] = (site, draw) => ({
  name: 'oldPage.decide',
  address: draw.of(['/old', '/older', '/oldest']),
  fields: pick(draw, {
    letGo: draw.of([null, 'gone' as const, { page: drawNode(site, draw) }]),
    declined: draw.some([...site.nodes.keys()], 0, 3),
  }),
});
