import { isSameJson } from '../model/canonical-json.ts';
import { type Refusal, type RefusalCode, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Audience } from '../model/audience.ts';
import type { Fact } from '../model/fact.ts';
import type { Layout } from '../model/layout.ts';
import type { Menu } from '../model/menu.ts';
import type { PageLabel } from '../model/page-label.ts';
import type { SharedSection } from '../model/shared-section.ts';
import type { SiteForm } from '../model/site-form.ts';
import type { Site } from '../model/site.ts';
import type { Applied } from './definition.ts';
import type { Operation } from './operation.ts';

/** What a site has several of, under ids and in an order: audiences, labels, menus, layouts, facts, shared sections, forms, goals, sketches, boards. */
type Kind = 'audience' | 'label' | 'menu' | 'layout' | 'fact' | 'shared' | 'form' | 'goal' | 'sketch' | 'board';
type Inverse = Applied['inverse'][number];

interface Description<Thing> {
  readonly kind: Kind;
  readonly listIn: (site: Site) => readonly Thing[];
  readonly withList: (site: Site, list: readonly Thing[]) => Site;
  readonly nameOf: (thing: Thing) => string;
  /** So many at most; and the refusal that says so. */
  readonly limit?: { readonly most: number; readonly code: RefusalCode };
}

/** What adding, setting and removing one of a site's things have in common. */
export class Things<Thing extends { readonly id: string }> {
  readonly #is: Description<Thing>;

  constructor(is: Description<Thing>) {
    this.#is = is;
  }

  find(site: Site, id: string): Thing | undefined {
    return this.#is.listIn(site).find((one) => one.id === id);
  }

  unknown(id: string): Refusal {
    return refuse(`${this.#is.kind}-unknown`, { [this.#is.kind]: id });
  }

  /** Its name in quotation marks, for sentences. */
  named(site: Site, id: string): string {
    const thing = this.find(site, id);
    return `‘${thing ? this.#is.nameOf(thing) : 'that is not there'}’`;
  }

  /** Whether there is one of that id already, or too many. */
  checkNew(site: Site, id: string): Refusal | null {
    const { kind, limit } = this.#is;
    if (this.find(site, id)) return refuse(`${kind}-exists`, { [kind]: id });
    return limit && this.#is.listIn(site).length >= limit.most ? refuse(limit.code, { limit: limit.most }) : null;
  }

  /** The list with one more. @param after the one that it follows; null puts it first, undefined or one that is gone puts it last */
  with(site: Site, thing: Thing, after: string | null | undefined): readonly Thing[] {
    const list = this.#is.listIn(site);
    const before = after == null ? -1 : list.findIndex(({ id }) => id === after);
    const isLast = after === undefined || (after !== null && before === -1);
    return list.toSpliced(isLast ? list.length : before + 1, 0, thing);
  }

  /** The site with one more; what takes it back removes it. */
  add(site: Site, thing: Thing, after: string | null | undefined): Applied {
    const { kind } = this.#is;
    return this.become(site, this.with(site, thing, after), { name: `${kind}.remove`, [kind]: thing.id } as Inverse);
  }

  /**
   * The site with another one in its place; the same site where nothing differs.
   * @param before the fields that make it what it was
   */
  set(site: Site, was: Thing, next: Thing, before: object): Applied {
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    const { kind, listIn } = this.#is;
    const list = listIn(site).map((one) => (one === was ? next : one));
    return this.become(site, list, { name: `${kind}.set`, [kind]: was.id, fields: before } as Inverse);
  }

  /** The site without one; `again` is what adding it again needs besides its id and its place. */
  remove(site: Site, thing: Thing, again: object): Applied {
    const { kind, listIn } = this.#is;
    const list = listIn(site);
    const at = list.indexOf(thing);
    return this.become(site, list.toSpliced(at, 1), {
      name: `${kind}.add`,
      [kind]: thing.id,
      after: list[at - 1]?.id ?? null,
      ...again,
    } as unknown as Inverse);
  }

  become(site: Site, list: readonly Thing[], inverse: Operation): Applied {
    return { ok: true, site: this.#is.withList(site, list), inverse: [inverse], touched: [] };
  }

  /** What adding and removing decide, and what setting fields does. */
  readonly cellOfThere = (id: string): string[] => [`${this.#is.kind}:${id}.there`];
  readonly cellsOfFields = (id: string, fields: object): string[] =>
    Object.keys(fields).map((field) => `${this.#is.kind}:${id}.${field}`);
}

interface Lists {
  readonly audiences: Audience;
  readonly labels: PageLabel;
  readonly menus: Menu;
  readonly layouts: Layout;
  readonly facts: Fact;
  readonly shared: SharedSection;
  readonly forms: SiteForm;
}

/** Things that stand in the settings of a site. */
export const thingsOfSettings = <Part extends keyof Lists>(
  kind: Kind,
  part: Part,
  limit: { readonly most: number; readonly code: RefusalCode },
): Things<Lists[Part]> =>
  new Things<Lists[Part]>({
    kind,
    listIn: ({ settings }) => settings[part] as readonly Lists[Part][],
    withList: (site, list) => withSettings(site, { ...site.settings, [part]: list }),
    nameOf: ({ name }) => name,
    limit,
  });

/** What a thing says besides these fields. */
export const allBut = (thing: object, ...fields: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(thing).filter(([field]) => !fields.includes(field)));

/** The fields in which one state of a thing differs from a later one, as they were; its name goes by `title`. */
export function fieldsBefore<Thing extends object>(was: Thing, next: Thing): Record<string, unknown> {
  const before: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(was), ...Object.keys(next)]) as Set<keyof Thing & string>)
    if (!isSameJson(next[key], was[key]))
      before[key === 'name' ? 'title' : key] = was[key] === undefined ? null : was[key];
  return before;
}
