import { isSameJson } from '../model/canonical-json.ts';
import { derivedOf } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import { acceptedDetails, maybeField } from '../fields/values.ts';
import type { LabelId } from '../model/access.ts';
import type { AudienceId } from '../model/audience.ts';
import type { KindField } from '../model/kind-field.ts';
import { NO_VALUES, type PageChanges, type PageValues, pageField } from '../model/page-fields.ts';
import { type Site, branchOf, childrenOf, maybeNodeAt, nodeAt } from '../model/site.ts';
import type { Sketch } from '../model/sketch.ts';
import { slugFromTitle } from '../model/slug.ts';
import { textIn } from '../model/texts.ts';
import type { SiteFile } from '../formats/site-json.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Refusal } from '../model/refusal.ts';
import { type Operation, operationSchema } from '../operations/operation.ts';
import { BROUGHT_FIELDS, type BroughtPage } from './brought-page.ts';

export const IMPORT_KINDS = ['added', 'moved', 'changed', 'removed', 'settings'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];

/** One thing that an import would do; each can be chosen or left. */
export interface ImportItem {
  /** The kind and the page: `moved p7`. */
  readonly key: string;
  readonly kind: ImportKind;
  /** Null for what concerns the site as a whole. */
  readonly page: PageId | null;
  readonly title: string;
  /** The names of the fields that change. */
  readonly fields: readonly string[];
  readonly line: number | null;
  readonly operation: Operation;
}

/**
 * What it takes to make the tree what a file says: pages are matched by their ids, then by their addresses; those that
 * the file does not name are offered for removal. Items stand in the order in which they can be done. `newId` makes ids.
 * Law: a file that says what the tree is asks for nothing.
 */
export const planImport = (
  site: Site,
  pages: readonly BroughtPage[],
  newId: () => PageId,
  tellRefused?: TellRefused,
): ImportItem[] => planPages(site, pages, matched(site, pages, newId), tellRefused);

/** Is told what of a file cannot be done: the rule that forbids it, or in words what is wrong with a value. */
export type TellRefused = (item: Pick<ImportItem, 'line' | 'title'>, why: Refusal | string, at: Site) => void;

/** The same, with the page of the site that each page of the file is. */
export function planPages(
  site: Site,
  pages: readonly BroughtPage[],
  ids: readonly PageId[],
  tellRefused: TellRefused = () => undefined,
): ImportItem[] {
  const { language } = site.settings;
  const parentOf = (page: BroughtPage): PageId | null =>
    page.parent === null ? null : typeof page.parent === 'number' ? ids[page.parent]! : page.parent.page;
  const items: ImportItem[] = [];
  let at = site;
  const add = (item: Omit<ImportItem, 'key'>) => {
    const parsed = operationSchema.safeParse(item.operation);
    if (!parsed.success) {
      const [{ path, message } = { path: [], message: '' }] = parsed.error.issues;
      return tellRefused(item, `${String(path.at(-1))}: ${message}`, at);
    }
    let operation = parsed.data;
    let outcome = applyOperation(at, operation);
    if (!outcome.ok && outcome.code === 'slug-reserved' && operation.name === 'page.add') {
      // It has the slug from where it stood: here it follows its title, rather than be lost with all below it.
      operation = { ...operation, slug: undefined };
      outcome = applyOperation(at, operation);
    }
    if (!outcome.ok) return tellRefused(item, outcome, at);
    if (outcome.site === at) return;
    items.push({ ...item, operation, key: `${item.kind} ${item.page}` });
    at = outcome.site;
  };

  /** The latest node below each parent that the file has named so far. */
  const latest = new Map<PageId | null, PageId>();
  const stay = staying(site, pages, ids, parentOf);
  pages.forEach((brought, index) => {
    const id = ids[index]!;
    const parent = parentOf(brought);
    const after = latest.get(parent) ?? null;
    const { line } = brought;
    const fields = { ...brought.fields, details: acceptedDetails(at, brought.fields.details) };
    if (!maybeNodeAt(at, id)) {
      const title = fields.title ?? '';
      add({
        kind: 'added',
        page: id,
        title,
        fields: [],
        line,
        operation: addOperation(id, parent, after, fields, language),
      });
    } else {
      const title = textIn(nodeAt(at, id).title, language);
      if (!stay.has(id))
        add({
          kind: 'moved',
          page: id,
          title,
          fields: nodeAt(at, id).parent === parent ? ['order'] : ['place'],
          line,
          operation: { name: 'page.move', page: id, place: { parent, after } },
        });
      const said = brought.isTitleMade ? { ...fields, title: undefined, slug: undefined } : fields;
      const changed = changesSaid(nodeAt(at, id), said, language);
      if (Object.keys(changed).length > 0)
        add({
          kind: 'changed',
          page: id,
          title,
          fields: Object.keys(changed).flatMap((name) => (name === 'plan' ? Object.keys(changed.plan!) : [name])),
          line,
          operation: { name: 'page.set', page: id, fields: changed },
        });
    }
    if (maybeNodeAt(at, id)) latest.set(parent, id);
  });

  const named = new Set(ids);
  for (const id of branchOf(site, null)) {
    if (named.has(id) || !maybeNodeAt(at, id) || branchOf(at, id).some((below) => named.has(below))) continue;
    const title = textIn(nodeAt(at, id).title, language);
    add({ kind: 'removed', page: id, title, fields: [], line: null, operation: { name: 'page.remove', page: id } });
  }
  return items;
}

/**
 * What a site file says otherwise of the audiences, those that others include first, and of the labels; and the site
 * with that done, which the rules of the pages are read for.
 */
export function planAudiences(
  site: Site,
  { audiences, labels }: Pick<SiteFile, 'audiences' | 'labels'>,
): { readonly items: ImportItem[]; readonly site: Site } {
  const items: ImportItem[] = [];
  let at = site;
  const waiting = [...audiences];
  const isThere = (id: AudienceId) => at.settings.audiences.some((one) => one.id === id);
  for (let tries = waiting.length * waiting.length; waiting.length > 0 && tries >= 0; tries--) {
    const { id, name: title, includes, landing } = waiting.shift()!;
    if (!includes.every(isThere)) {
      waiting.push({ id, name: title, includes, ...(landing && { landing }) });
      continue;
    }
    const operation: Operation = isThere(id)
      ? { name: 'audience.set', audience: id, fields: { title, includes, landing: landing ?? null } }
      : { name: 'audience.add', audience: id, title, includes, ...(landing && { landing }) };
    const outcome = applyOperation(at, operation);
    if (!outcome.ok || outcome.site === at) continue;
    at = outcome.site;
    const key = `settings audience ${id}`;
    items.push({ key, kind: 'settings', page: null, title: `Audience: ${title}`, fields: [], line: null, operation });
  }
  for (const { id, name: title, rule, about, fields = [], pageOutline } of labels) {
    const operation: Operation = at.settings.labels.some((one) => one.id === id)
      ? {
          name: 'label.set',
          label: id,
          fields: { title, rule, about: about ?? null, pageOutline: pageOutline ?? null },
        }
      : { name: 'label.add', label: id, title, rule, ...(about && { about }), ...(pageOutline && { pageOutline }) };
    const outcome = applyOperation(at, operation);
    if (outcome.ok && outcome.site !== at) {
      at = outcome.site;
      const key = `settings label ${id}`;
      items.push({ key, kind: 'settings', page: null, title: `Label: ${title}`, fields: [], line: null, operation });
    }
    for (const field of fields) {
      const made = planField(at, id, field);
      const done = applyOperation(at, made);
      if (!done.ok || done.site === at) continue;
      at = done.site;
      const key = `settings field ${field.id}`;
      items.push({
        key,
        kind: 'settings',
        page: null,
        title: `Field of ${title}: ${field.name}`,
        fields: [],
        line: null,
        operation: made,
      });
    }
  }
  return { items, site: at };
}

/** What makes a field what the file says: added to the label where no label has it. */
function planField(site: Site, label: LabelId, { id, name: title, ...settings }: KindField): Operation {
  return maybeField(site.settings.labels, id)
    ? { name: 'field.set', field: id, fields: { title, ...settings } }
    : { name: 'field.add', label, field: id, title, settings };
}

/** What a site file says otherwise of the site as a whole: its name, its home page, its goals, its sketches, its boards, its old pages. */
export function planSettings(
  site: Site,
  file: Pick<SiteFile, 'name' | 'home' | 'goals' | 'sketches' | 'boards' | 'oldPages'>,
): ImportItem[] {
  const items: ImportItem[] = [];
  const add = (key: string, title: string, operation: Operation) =>
    items.push({ key: `settings ${key}`, kind: 'settings', page: null, title, fields: [], line: null, operation });
  if (file.name !== site.settings.name)
    add('name', `Name: ${file.name}`, { name: 'site.set', fields: { name: file.name } });
  if (file.home !== site.settings.home) add('home', 'The home page', { name: 'site.set', fields: { home: file.home } });
  for (const { id, ...goal } of file.goals) {
    const known = site.goals.find((one) => one.id === id);
    if (!known) add(`goal ${id}`, `Goal: ${goal.statement}`, { name: 'goal.add', goal: id, ...goal });
    else if (!isSameJson(known, { id, ...goal }))
      add(`goal ${id}`, `Goal: ${goal.statement}`, { name: 'goal.set', goal: id, fields: goal });
  }
  for (const sketch of file.sketches ?? [])
    for (const [key, title, operation] of planSketch(
      site.sketches.find(({ id }) => id === sketch.id),
      sketch,
    ))
      add(key, title, operation);
  for (const { id: board, name: title, pieces } of file.boards ?? []) {
    const known = site.boards.find(({ id }) => id === board);
    const of = (key: string, operation: Operation) => add(`board ${board}${key}`, `Board: ${title}`, operation);
    if (!known) of('', { name: 'board.add', board, title, pieces });
    else if (known.name !== title) of('', { name: 'board.set', board, fields: { title } });
    for (const piece of known ? pieces : [])
      if (
        !isSameJson(
          known?.pieces.find(({ id }) => id === piece.id),
          piece,
        )
      )
        of(` ${piece.id}`, { name: 'piece.put', board, piece });
    for (const { id: piece } of known?.pieces ?? [])
      if (!pieces.some(({ id }) => id === piece)) of(` ${piece}`, { name: 'piece.remove', board, piece });
  }
  for (const { address, ...decision } of file.oldPages)
    if (!isSameJson(site.oldPages.get(address), decision))
      add(`old ${address}`, `Old address: ${address}`, { name: 'oldPage.decide', address, fields: decision });
  return items;
}

/** What makes a sketch what a file says: variants before the one is named that was taken, and those that it has not last. */
function planSketch(is: Sketch | undefined, said: Sketch): [key: string, title: string, Operation][] {
  const { id: sketch, name: title, kinds, variants, taken } = said;
  const called = `Sketch: ${title}`;
  if (!is) return [[`sketch ${sketch}`, called, { name: 'sketch.add', sketch, title, kinds, variants, taken }]];
  const steps: [string, string, Operation][] = [];
  for (const { id: variant, name, boxes } of variants) {
    const [key, named] = [`variant ${sketch} ${variant}`, `${called}, variant ${name}`];
    const known = is.variants.find((one) => one.id === variant);
    if (!known) steps.push([key, named, { name: 'variant.add', sketch, variant, title: name, boxes }]);
    else if (!isSameJson(known, { id: variant, name, boxes }))
      steps.push([key, named, { name: 'variant.set', sketch, variant, fields: { title: name, boxes } }]);
  }
  if (!isSameJson([is.name, is.kinds, is.taken], [title, kinds, taken]))
    steps.push([`sketch ${sketch}`, called, { name: 'sketch.set', sketch, fields: { title, kinds, taken } }]);
  for (const { id: variant, name } of is.variants)
    if (!variants.some((one) => one.id === variant))
      steps.push([
        `variant ${sketch} ${variant}`,
        `${called}, without the variant ${name}`,
        { name: 'variant.remove', sketch, variant },
      ]);
  return steps;
}

/** The operations of the chosen items. What cannot be done without an item that was left is left too. */
export function operationsOf(
  site: Site,
  items: readonly ImportItem[],
  chosen: ReadonlySet<string> | 'all',
): Operation[] {
  let at = site;
  const operations: Operation[] = [];
  for (const { key, operation } of items) {
    if (chosen !== 'all' && !chosen.has(key)) continue;
    for (const one of [operation, withoutNeighbour(operation)]) {
      const outcome = applyOperation(at, one);
      if (!outcome.ok) continue;
      if (outcome.site !== at) operations.push(one);
      at = outcome.site;
      break;
    }
  }
  return operations;
}

/** The same, last among its siblings: the one that it was to follow may have been left. */
const withoutNeighbour = (operation: Operation): Operation =>
  operation.name === 'page.add' || operation.name === 'page.move'
    ? ({ ...operation, place: { parent: operation.place.parent } } as Operation)
    : operation;

/** The page of the site that each node of the file is, or a new id. */
export function matched(site: Site, pages: readonly BroughtPage[], newId: () => PageId): PageId[] {
  const { rowAt, outline, home } = derivedOf(site);
  const { language } = site.settings;
  const ids: PageId[] = [];
  const addresses: (string | null)[] = [];
  const taken = new Set(pages.flatMap(({ id }) => (id !== null && maybeNodeAt(site, id) ? [id] : [])));
  for (const { id, parent, fields } of pages) {
    const known = id !== null && maybeNodeAt(site, id) ? id : null;
    const slug = fields.slug || slugFromTitle(fields.title ?? '');
    const above =
      parent === null
        ? ''
        : typeof parent === 'number'
          ? addresses[parent]!
          : (derivedOf(site).addresses[outline.rowOf.get(parent.page)!] ?? '');
    const homeSlug = home === null ? undefined : nodeAt(site, home).slug[language]?.text;
    const isHome = parent === null && ids.length === 0 && (slug === homeSlug || fields.slug === '/');
    const address = isHome ? '/' : fields.type === 'heading' ? above : `${above === '/' ? '' : above}/${slug}`;
    const row = known === null && fields.type !== 'link' && fields.type !== 'heading' ? rowAt.get(address) : undefined;
    const byAddress = row === undefined ? null : outline.nodes[row]!.id;
    const isFree = byAddress !== null && !taken.has(byAddress);
    // An id that a removed page has cannot be given again.
    const made = known ?? (isFree ? byAddress! : id !== null && !site.nodes.has(id) ? id : newId());
    taken.add(made);
    ids.push(made);
    addresses.push(isHome ? '' : address);
  }
  return ids;
}

/**
 * The pages that stay where they are: they stand below the right page already, and in each list of siblings they are the
 * longest run that is in the order of the file (longest increasing subsequence), so that as few as can be are moved.
 */
function staying(
  site: Site,
  pages: readonly BroughtPage[],
  ids: readonly PageId[],
  parentOf: (page: BroughtPage) => PageId | null,
): ReadonlySet<PageId> {
  const siblings = new Map<PageId | null, PageId[]>();
  pages.forEach((brought, index) => {
    const id = ids[index]!;
    const parent = parentOf(brought);
    const node = maybeNodeAt(site, id);
    if (node && node.parent === parent) siblings.set(parent, [...(siblings.get(parent) ?? []), id]);
  });
  const stay = new Set<PageId>();
  for (const [parent, named] of siblings) {
    const placeOf = new Map(childrenOf(site, parent).map((id, place) => [id, place]));
    for (const at of longestRun(named.map((id) => placeOf.get(id)!))) stay.add(named[at]!);
  }
  return stay;
}

/** The places of a longest increasing subsequence. */
function longestRun(numbers: readonly number[]): number[] {
  const ends: number[] = [];
  const before = new Array<number>(numbers.length).fill(-1);
  numbers.forEach((number, at) => {
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (numbers[ends[middle]!]! < number) low = middle + 1;
      else high = middle;
    }
    before[at] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = at;
  });
  const run: number[] = [];
  for (let at = ends.at(-1) ?? -1; at !== -1; at = before[at]!) run.push(at);
  return run.reverse();
}

function addOperation(
  page: PageId,
  parent: PageId | null,
  after: PageId | null,
  { title = '', slug, ...fields }: BroughtPage['fields'],
  language: string,
): Operation {
  const isOwnSlug = slug && slug !== '/' && slug !== slugFromTitle(title ?? '');
  return {
    name: 'page.add',
    page,
    place: { parent, after },
    ...changesSaid(NO_VALUES, fields, language),
    title: { [language]: title ?? '' },
    slug: isOwnSlug ? { [language]: { text: slug, own: true } } : undefined,
    inAddress: fields.type === 'heading' ? fields.inAddress : undefined,
  } as Operation;
}

/** The changes that make of these values what a file says of them. */
const changesSaid = (values: PageValues, said: BroughtPage['fields'], language: string): PageChanges =>
  Object.fromEntries(
    BROUGHT_FIELDS.flatMap((name) => {
      const change =
        said[name] === undefined ? undefined : pageField(name).file.change(said[name], values[name], language);
      return change === undefined ? [] : [[name, change]];
    }),
  );
