import type { DropPlace } from '../arrange/landing.ts';
import { type TextDocument, contentIdOf } from '../model/content.ts';
import { type AccessChange, type LabelId, ruleOf, toKeptAccess } from '../model/access.ts';
import { type Audience, type AudienceId, EVERYONE, SIGNED_OUT, SIGNED_OUT_NAME } from '../model/audience.ts';
import type { ContentId, Language, PageId } from '../model/ids.ts';
import { isSameJson } from '../model/canonical-json.ts';
import { FIRST_LOOK } from '../model/look.ts';
import { sketchOf } from '../model/sketch.ts';
import type { SiteNode } from '../model/node.ts';
import { type StarterSketch, starterSketchOf } from './starter-sketches.ts';
import { isAsItsKind } from '../model/kind-outline.ts';
import type { LayoutId } from '../model/layout.ts';
import { kindAmong } from '../model/page-label.ts';
import { type PlanChange, type SketchId, planOf } from '../model/plan.ts';
import { MAX_DEPTH, type Site, childrenOf, maybeNodeAt, nodeAt } from '../model/site.ts';
import { isReservedSlug } from '../model/slug.ts';
import { textIn } from '../model/texts.ts';
import type { Operation } from '../operations/operation.ts';
import { formsIn } from '../sections/shown-forms.ts';
import { sectionsDocument, sectionsOf } from './starter-sections.ts';
import { starterFieldsOf, starterFormOf } from './starter-fields.ts';
import type { StarterForm } from './starter-file-fields.ts';
import { NamedSettings, type StarterSite, starterLayout } from './starter-settings.ts';
import {
  MAX_SHELLS,
  type Shell,
  type ShellAccess,
  type Starter,
  type StarterKind,
  type StarterLayout,
} from './starter-file.ts';

/** A shell in tree order. */
export interface FlatShell {
  readonly shell: Shell;
  readonly depth: number;
  /** The place in the list of the shell above, or -1. */
  readonly parent: number;
  /** The place after the last shell below. */
  readonly end: number;
}

/** The shells of a starter in tree order. */
export function flatShells(starter: Pick<Starter, 'pages'>): FlatShell[] {
  const flat: { shell: Shell; depth: number; parent: number; end: number }[] = [];
  const walk = (shells: readonly Shell[], depth: number, parent: number) => {
    for (const shell of shells) {
      const at = flat.length;
      flat.push({ shell, depth, parent, end: at + 1 });
      walk(shell.below ?? [], depth + 1, at);
      flat[at]!.end = flat.length;
    }
  };
  walk(starter.pages, 0, -1);
  return flat;
}

/** Whether a starter is small and shallow enough to be used. */
export const isUsable = (starter: Starter): boolean => {
  const flat = flatShells(starter);
  return flat.length <= MAX_SHELLS && flat.every(({ depth }) => depth < MAX_DEPTH);
};

type Add = Extract<Operation, { name: 'page.add' }>;

/**
 * The pages of a starter at a place: those that are chosen, by their places in `flatShells`, with the titles that were
 * given on the way. A page whose page above is not chosen is left too. Sections become headings of the page's text.
 * Audiences, kinds, layouts, forms and sketches that these pages name and the site does not have are added first.
 */
export function pagesOfStarter(
  { pages, ...bringing }: Pick<Starter, 'pages' | 'layouts' | 'kinds' | 'forms' | 'sketches'>,
  chosen: ReadonlySet<number>,
  titles: ReadonlyMap<number, string>,
  place: Pick<DropPlace, 'parent' | 'after'>,
  language: Language,
  newId: () => PageId,
  site: StarterSite,
): {
  readonly operations: (Add | NamedSettings['added'][number])[];
  readonly contents: { id: ContentId; document: TextDocument }[];
} {
  const ids = new Map<number, PageId>();
  const latest = new Map<PageId | null, PageId | null>([[place.parent, place.after]]);
  const contents = new Map<ContentId, TextDocument>();
  const operations: Add[] = [];
  const shells = flatShells({ pages });
  shells.forEach(({ parent }, at) => {
    if (chosen.has(at) && (parent === -1 || ids.has(parent))) ids.set(at, newId());
  });
  const pageTitled = (title: string): PageId | null =>
    ids.get(shells.findIndex(({ shell }, at) => ids.has(at) && shell.title === title)) ?? null;
  const named = new NamedSettings(site, bringing, pageTitled);
  shells.forEach(({ shell, parent }, at) => {
    const page = ids.get(at);
    if (page === undefined) return;
    const above = parent === -1 ? place.parent : ids.get(parent)!;
    const type = shell.type ?? 'page';
    const form = shell.form === undefined || type !== 'page' ? null : named.form(shell.form);
    const document = type === 'page' ? sectionsDocument(shell.sections ?? [], form) : null;
    const layout = shell.layout === undefined ? null : named.layout(shell.layout);
    const access = accessOfShell(shell, named);
    const content = document ? contentIdOf(document) : type === 'page' ? named.outlineOf(shell.kind) : null;
    if (document) contents.set(contentIdOf(document), document);
    const given = titles.get(at)?.trim();
    operations.push({
      name: 'page.add',
      page,
      place: { parent: above, after: latest.get(above) ?? null },
      type,
      title: { [language]: given || shell.title },
      label: shell.label ? { [language]: shell.label } : undefined,
      // A page that was renamed on the way has the address of its new name; some are not to be had at the root.
      slug:
        shell.slug && !given && !isReservedSlug(shell.slug, true)
          ? { [language]: { text: shell.slug, own: true } }
          : undefined,
      description: shell.description ? { [language]: shell.description } : undefined,
      inMenus: shell.inMenus,
      content: content ?? undefined,
      plan: planOfShell(shell, type === 'page' ? named.sketchFor(shell) : null),
      access,
      frame: layout === null ? undefined : { layout },
    });
    latest.set(above, page);
  });
  return {
    operations: [...named.added, ...operations],
    contents: [...contents, ...named.contents].map(([id, document]) => ({ id, document })),
  };
}

/** What gives a site the look of the starter that it begins with; nothing where it has pages already, or a look of its own. */
export const lookOfStarter = ({ look }: Pick<Starter, 'look'>, site: Site): Operation[] =>
  look && childrenOf(site, null).length === 0 && isSameJson(site.settings.look, FIRST_LOOK)
    ? [{ name: 'site.set', fields: { look } }]
    : [];

/** A branch, or the whole tree (`null`), as a starter. Links lead out of it and are left. */
export function starterOf(
  site: Site,
  top: PageId | null,
  name: string,
  description: string,
  documentOf: (content: ContentId) => TextDocument | undefined,
): Starter {
  const { language, labels } = site.settings;
  const layouts = new Map<string, StarterLayout>();
  const kinds = new Map<string, StarterKind>();
  const layoutNamed = (id: LayoutId): string | undefined => {
    const layout = site.settings.layouts.find((one) => one.id === id);
    if (layout) layouts.set(layout.name, starterLayout(layout, site.settings));
    return layout?.name;
  };
  const titleOf = (page: PageId): string | undefined => {
    const node = maybeNodeAt(site, page);
    return node && textIn(node.title, language);
  };
  const names = { labels, titleOf };
  const forms = new Map<string, StarterForm>();
  const formIn = (document: TextDocument): string | undefined => {
    const [id] = formsIn(document);
    const form = site.settings.forms.find((one) => one.id === id);
    if (form) forms.set(form.name, starterFormOf(form, names));
    return form?.name;
  };
  const kindNamed = (borne: readonly LabelId[]): string | undefined => {
    const kind = kindAmong(borne, labels);
    const fields = starterFieldsOf(kind?.fields ?? [], names);
    if (!kind) return undefined;
    const outline = kind.pageOutline === undefined ? undefined : documentOf(kind.pageOutline);
    kinds.set(kind.name, {
      name: kind.name,
      about: kind.about,
      ...(fields.length > 0 && { fields }),
      ...(outline && { sections: sectionsOf(outline) }),
    });
    return kind.name;
  };
  const sketches = new Map<string, StarterSketch>();
  /** The sketch that a page names itself; one that it has through its kind goes along, too. */
  const sketchNamed = (node: SiteNode): string | undefined => {
    const sketch = sketchOf(site, node);
    if (!sketch) return undefined;
    const ofKinds = (kind: LabelId) => labels.find((one) => one.id === kind && kinds.has(one.name))?.name;
    if (!sketches.has(sketch.name)) sketches.set(sketch.name, starterSketchOf(sketch, ofKinds));
    return planOf(node).sketch === sketch.id ? sketch.name : undefined;
  };
  const shellsOf = (ids: readonly PageId[]): Shell[] =>
    ids.flatMap((id): Shell[] => {
      const node = nodeAt(site, id);
      if (node.type === 'link') return [];
      // One that says what its kind says has nothing of its own.
      const isOwn = node.content !== null && !isAsItsKind(node, labels);
      const document = isOwn ? documentOf(node.content!) : undefined;
      const sections = document ? sectionsOf(document) : [];
      const slug = node.slug[language];
      const below = shellsOf(childrenOf(site, id));
      return [
        {
          title: textIn(node.title, language),
          type: node.type === 'heading' ? 'heading' : undefined,
          label: textIn(node.label, language) || undefined,
          slug: slug?.own ? slug.text : undefined,
          inMenus: node.inMenus ? undefined : false,
          description: textIn(node.description, language) || undefined,
          purpose: planOf(node).purpose || undefined,
          sections: sections.length > 0 ? sections : undefined,
          access: node.access === null ? undefined : shellAccess(toKeptAccess(node.access), site.settings.audiences),
          kind: kindNamed(ruleOf(node).labels),
          layout: node.frame?.layout == null ? undefined : layoutNamed(node.frame.layout),
          form: document && formIn(document),
          sketch: sketchNamed(node),
          below: below.length > 0 ? below : undefined,
        },
      ];
    });
  const pages = shellsOf(top === null ? childrenOf(site, null) : [top]);
  return {
    format: 'spur-starter',
    version: 1,
    name,
    description,
    look: top === null && !isSameJson(site.settings.look, FIRST_LOOK) ? site.settings.look : undefined,
    layouts: layouts.size > 0 ? [...layouts.values()] : undefined,
    kinds: kinds.size > 0 ? [...kinds.values()] : undefined,
    forms: forms.size > 0 ? [...forms.values()] : undefined,
    sketches: sketches.size > 0 ? [...sketches.values()] : undefined,
    pages,
  };
}

/** What is planned for a page to be; undefined where that is nothing. */
const planOfShell = ({ purpose }: Shell, sketch: SketchId | null): PlanChange | undefined =>
  purpose || sketch !== null ? { ...(purpose && { purpose }), ...(sketch !== null && { sketch }) } : undefined;

function accessOfShell({ access = {}, kind }: Shell, named: NamedSettings): AccessChange | undefined {
  const { only, except, ...rest } = access;
  const change: AccessChange = {
    ...rest,
    ...(only && { only: only.map((name) => named.audience(name)) }),
    ...(except && { except: except.map((name) => named.audience(name)) }),
    ...(kind !== undefined && { labels: [named.kind(kind)] }),
  };
  return Object.keys(change).length === 0 ? undefined : change;
}

/** A rule by the names of its audiences; a rule that names everyone names nobody in particular. */
function shellAccess(kept: AccessChange, audiences: readonly Audience[]): ShellAccess | undefined {
  const { only, except, standsAlone, closedLook, engines, search, standsIn, menuFor } = kept;
  const names = (ids: readonly AudienceId[] | null | undefined) =>
    (ids ?? []).flatMap((id) =>
      id === SIGNED_OUT ? SIGNED_OUT_NAME : (audiences.find((one) => one.id === id)?.name ?? []),
    );
  const exceptNames = names(except);
  const access: ShellAccess = {
    ...(only && !only.includes(EVERYONE) && { only: names(only) }),
    ...(exceptNames.length > 0 && { except: exceptNames }),
    ...(standsAlone && { standsAlone }),
    ...(closedLook && { closedLook }),
    ...(engines && { engines }),
    ...(search && { search }),
    ...(standsIn && { standsIn }),
    ...(menuFor && { menuFor }),
  };
  return Object.keys(access).length === 0 ? undefined : access;
}
