import type { PageId, SiteKey } from '#core/model/ids.ts';
import { HERE_FOR_MS, type HereNews } from '#contract/presence.ts';
import { FORGOTTEN_AFTER_MS, type WritingNews } from '#contract/writing.ts';
import { call } from './client.ts';
import { TAB } from './open-text.ts';

/** Where fields are changed: on a page, or in the settings, by what the address bar says (`layouts/handbook`). */
export type FieldsPlace = { readonly page: PageId } | { readonly setting: string };

/** Who changes which field of a place, by its label. */
type Changers = ReadonlyMap<string, string>;

const NOBODY_HERE: ReadonlyMap<PageId, string> = new Map();
const NO_FIELDS: ReadonlyMap<string, Changers> = new Map();
const NO_CHANGERS: Changers = new Map();

const nameOf = (place: FieldsPlace): string => ('page' in place ? `page ${place.page}` : `setting ${place.setting}`);

/** Who else is at a site now, what they have selected, write and change; and what they are told of this tab. What cannot be told is left out. */
export class Presence {
  readonly #site: SiteKey;
  /** Who else writes where, tab by tab. */
  readonly #writers = new Map<string, { readonly page: PageId; readonly by: string; readonly forget: number }>();
  readonly #writingListeners = new Set<() => void>();
  /** Who else is where, tab by tab. */
  readonly #others = new Map<string, HereNews & { readonly forget: number }>();
  readonly #hereListeners = new Set<() => void>();
  #here = NOBODY_HERE;
  #fields = NO_FIELDS;
  #own: Pick<HereNews, 'page' | 'setting' | 'field'> = { page: null, setting: null, field: null };

  constructor(site: SiteKey) {
    this.#site = site;
  }

  onWriting = (listener: () => void): (() => void) => {
    this.#writingListeners.add(listener);
    return () => this.#writingListeners.delete(listener);
  };

  /** Who writes in the text of a page in another tab or browser, by name; '' for nobody. */
  writerAt(page: PageId): string {
    const names = [...this.#writers.values()].filter((one) => one.page === page).map(({ by }) => by);
    return [...new Set(names)].join(', ');
  }

  /** Tells the others that somebody writes in a text here, or has left it. */
  tellWriting(page: PageId, isWriting: boolean): void {
    void call('tellWriting', { site: this.#site }, { page, tab: TAB, isWriting }).catch(() => undefined);
  }

  /** Takes what another tab tells of its writing. */
  hearWriting({ page, tab, isWriting, by }: WritingNews): void {
    const forget = () => {
      this.#writers.delete(tab);
      this.#writingListeners.forEach((listener) => listener());
    };
    window.clearTimeout(this.#writers.get(tab)?.forget);
    if (!isWriting) return forget();
    this.#writers.set(tab, { page, by, forget: window.setTimeout(forget, FORGOTTEN_AFTER_MS) });
    this.#writingListeners.forEach((listener) => listener());
  }

  onHere = (listener: () => void): (() => void) => {
    this.#hereListeners.add(listener);
    return () => this.#hereListeners.delete(listener);
  };

  /** Who else has which page selected: their names, a line each. The same map while nothing changes. */
  getHere = (): ReadonlyMap<PageId, string> => this.#here;

  /** Who else changes which field of a place. */
  changersAt(place: FieldsPlace): Changers {
    return this.#fields.get(nameOf(place)) ?? NO_CHANGERS;
  }

  /** Tells the others which page is selected here. */
  tellHere(page: PageId | null): void {
    const isElsewhere = page !== this.#own.page && this.#own.setting === null;
    this.#tell({ ...this.#own, page, field: isElsewhere ? null : this.#own.field });
  }

  /** Tells the others which field is being changed here, by its label; null for none. */
  tellField(place: FieldsPlace, field: string | null): void {
    const next = { page: this.#own.page, setting: null, ...place, field };
    if (next.field === this.#own.field && next.page === this.#own.page && next.setting === this.#own.setting) return;
    this.#tell(next);
  }

  /** Tells the others that no field of a place is being changed any more, where they were told that one is: it is closed. */
  leaveFields(place: FieldsPlace): void {
    const { page, setting, field } = this.#own;
    const isThere = 'page' in place ? setting === null && page === place.page : setting === place.setting;
    if (field !== null && isThere) this.tellField(place, null);
  }

  /** Tells those who have come meanwhile. */
  tellAgain(): void {
    if (this.#own.page !== null || this.#own.field !== null) this.#tell(this.#own);
  }

  #tell(own: Pick<HereNews, 'page' | 'setting' | 'field'>): void {
    this.#own = own;
    void call('tellHere', { site: this.#site }, { ...own, tab: TAB }).catch(() => undefined);
  }

  /** Takes what another tab tells of where it is. */
  hear(news: HereNews): void {
    window.clearTimeout(this.#others.get(news.tab)?.forget);
    const forget = () => {
      this.#others.delete(news.tab);
      this.#show();
    };
    if (!news.isHere) return forget();
    this.#others.set(news.tab, { ...news, forget: window.setTimeout(forget, HERE_FOR_MS) });
    this.#show();
  }

  #show(): void {
    const names = new Map<PageId, Set<string>>();
    const fields = new Map<string, Map<string, string>>();
    for (const { page, setting, field, by } of this.#others.values()) {
      if (page !== null) names.set(page, (names.get(page) ?? new Set()).add(by));
      if (field === null || (page === null && setting === null)) continue;
      const place = nameOf(setting === null ? { page: page! } : { setting });
      fields.set(place, (fields.get(place) ?? new Map<string, string>()).set(field, by));
    }
    this.#here = new Map([...names].map(([page, of]) => [page, [...of].sort().join('\n')]));
    this.#fields = fields.size === 0 ? NO_FIELDS : fields;
    this.#hereListeners.forEach((listener) => listener());
  }
}
