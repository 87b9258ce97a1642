import type { LabelId } from '../model/access.ts';
import { type AudienceId, SIGNED_OUT, SIGNED_OUT_NAME } from '../model/audience.ts';
import { type Layout, type LayoutId, MENU_SLOTS } from '../model/layout.ts';
import { isKind } from '../model/page-label.ts';
import { type TextDocument, contentIdOf } from '../model/content.ts';
import type { ContentId, PageId } from '../model/ids.ts';
import type { FieldId } from '../model/kind-field.ts';
import type { SketchId } from '../model/plan.ts';
import type { Settings, Site } from '../model/site.ts';
import type { FormId } from '../model/site-form.ts';
import type { Operation } from '../operations/operation.ts';
import { type NamesOfFields, fieldSettingsOf, formSettingsOf } from './starter-fields.ts';
import type { StarterForm } from './starter-file-fields.ts';
import { type SketchIds, type StarterSketch, addOfSketch } from './starter-sketches.ts';
import { outlineDocument } from './starter-sections.ts';
import type { StarterKind, StarterLayout } from './starter-file.ts';

/** The site that a starter's pages go to: its settings, and ids for what they lack. */
export interface StarterSite extends SketchIds {
  readonly settings: Pick<Settings, 'audiences' | 'labels' | 'layouts' | 'menus' | 'forms'>;
  readonly sketches: Site['sketches'];
  readonly newAudience: () => AudienceId;
  readonly newLabel: () => LabelId;
  readonly newLayout: () => LayoutId;
  readonly newField: () => FieldId;
  readonly newForm: () => FormId;
}

/** What a starter names and brings along. */
export interface Named {
  readonly layouts?: readonly StarterLayout[] | undefined;
  readonly kinds?: readonly StarterKind[] | undefined;
  readonly forms?: readonly StarterForm[] | undefined;
  readonly sketches?: readonly StarterSketch[] | undefined;
}

type Addition = Extract<
  Operation,
  { name: 'audience.add' | 'label.add' | 'layout.add' | 'field.add' | 'form.add' | 'sketch.add' }
>;

/** Finds what a starter names among a site's settings, whatever its capitals, and adds what is not there, once. */
export class NamedSettings {
  readonly added: Addition[] = [];
  /** The texts that the additions name. */
  readonly contents = new Map<ContentId, TextDocument>();
  readonly #site: StarterSite;
  readonly #layouts: readonly StarterLayout[];
  readonly #kinds: readonly StarterKind[];
  readonly #forms: readonly StarterForm[];
  readonly #sketches: readonly StarterSketch[];
  readonly #names: NamesOfFields;
  readonly #ids = new Map<string, string>();

  /** @param pageTitled the page that the starter brings under a title; null where it brings none */
  constructor(
    site: StarterSite,
    { layouts = [], kinds = [], forms = [], sketches = [] }: Named,
    pageTitled: (title: string) => PageId | null,
  ) {
    this.#site = site;
    this.#layouts = layouts;
    this.#kinds = kinds;
    this.#forms = forms;
    this.#sketches = sketches;
    this.#names = { kind: (name) => this.kind(name), page: pageTitled, newField: site.newField };
  }

  audience(name: string): AudienceId {
    if (name === SIGNED_OUT_NAME) return SIGNED_OUT;
    return this.#named('audience', name, this.#site.settings.audiences, () => {
      const audience = this.#site.newAudience();
      return { id: audience, operation: { name: 'audience.add', audience, title: name } };
    });
  }

  /** A kind that the starter says nothing of is one of pages as such. */
  kind(name: string): LabelId {
    const { fields = [], about = 'page', sections } = this.#kinds.find((one) => isSame(one.name, name)) ?? {};
    let isNew = false;
    const label = this.#named('kind', name, this.#site.settings.labels.filter(isKind), () => {
      isNew = true;
      const id = this.#site.newLabel();
      if (!sections) return { id, operation: { name: 'label.add', label: id, title: name, about } };
      const document = outlineDocument(sections);
      const pageOutline = contentIdOf(document);
      this.contents.set(pageOutline, document);
      return { id, operation: { name: 'label.add', label: id, title: name, about, pageOutline } };
    });
    // Its own pages may be what its fields name.
    if (isNew)
      for (const field of fields) {
        const settings = fieldSettingsOf(field, this.#names);
        this.added.push({ name: 'field.add', label, field: this.#site.newField(), title: field.name, settings });
      }
    return label;
  }

  /** What pages of a kind begin with; null where that is nothing. */
  outlineOf(kind: string | undefined): ContentId | null {
    if (kind === undefined) return null;
    const id = this.kind(kind);
    const there = this.#site.settings.labels.find((one) => one.id === id);
    const added = this.added.find((one) => one.name === 'label.add' && one.label === id);
    return there?.pageOutline ?? (added?.name === 'label.add' ? (added.pageOutline ?? null) : null);
  }

  /** Null where neither the site nor the starter has a form of that name. */
  form(name: string): FormId | null {
    const { forms } = this.#site.settings;
    const known = this.#forms.find((one) => isSame(one.name, name));
    if (!known && !forms.some((one) => isSame(one.name, name))) return null;
    return this.#named('form', name, forms, () => {
      const form = this.#site.newForm();
      return {
        id: form,
        operation: { name: 'form.add', form, title: name, settings: formSettingsOf(known!, this.#names) },
      };
    });
  }

  /** The sketch that a page names itself; what the starter has for its kind is added as well. Null where it names none that is known. */
  sketchFor({
    sketch,
    kind,
  }: {
    readonly sketch?: string | undefined;
    readonly kind?: string | undefined;
  }): SketchId | null {
    for (const { name, kinds = [] } of this.#sketches)
      if (kind !== undefined && kinds.some((one) => isSame(one, kind))) this.#sketch(name);
    return sketch === undefined ? null : this.#sketch(sketch);
  }

  #sketch(name: string): SketchId | null {
    const { sketches } = this.#site;
    const known = this.#sketches.find((one) => isSame(one.name, name));
    if (!known && !sketches.some((one) => isSame(one.name, name))) return null;
    return this.#named('sketch', name, sketches, () => {
      const operation = addOfSketch(known!, (kind) => this.kind(kind), this.#site);
      return { id: operation.sketch, operation };
    });
  }

  /** Null where neither the site nor the starter has a layout of that name. */
  layout(name: string): LayoutId | null {
    const { layouts, menus } = this.#site.settings;
    const known = this.#layouts.find((one) => isSame(one.name, name));
    if (!known && !layouts.some((one) => isSame(one.name, name))) return null;
    return this.#named('layout', name, layouts, () => {
      const layout = this.#site.newLayout();
      const { header, hasFooter, hasTurns, menus: named } = known!;
      const menuAt = (slot: (typeof MENU_SLOTS)[number]) =>
        menus.find((one) => named[slot] !== undefined && isSame(one.name, named[slot]))?.id ?? null;
      const slots = {
        utility: menuAt('utility'),
        header: menuAt('header'),
        side: menuAt('side'),
        footer: menuAt('footer'),
      };
      return {
        id: layout,
        operation: {
          name: 'layout.add',
          layout,
          title: name,
          fields: { header, hasFooter, hasTurns, menus: slots, picture: '', trail: null },
        },
      };
    });
  }

  #named<Id extends string>(
    what: string,
    name: string,
    known: readonly { readonly id: Id; readonly name: string }[],
    make: () => { readonly id: Id; readonly operation: Addition },
  ): Id {
    const key = `${what} ${name.toLowerCase()}`;
    let id = this.#ids.get(key) ?? known.find((one) => isSame(one.name, name))?.id;
    if (id === undefined) {
      const made = make();
      ({ id } = made);
      this.added.push(made.operation);
    }
    this.#ids.set(key, id);
    return id as Id;
  }
}

/** A layout as a starter keeps it. */
export function starterLayout(
  { name, header, hasFooter, hasTurns, menus }: Layout,
  settings: Pick<Settings, 'menus'>,
): StarterLayout {
  const named = MENU_SLOTS.flatMap((slot) => {
    const menu = settings.menus.find(({ id }) => id === menus[slot]);
    return menu ? [[slot, menu.name] as const] : [];
  });
  return { name, header, hasFooter, hasTurns, menus: Object.fromEntries(named) };
}

const isSame = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
