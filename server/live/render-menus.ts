import { type MenuEntry, entriesOf, goesBySection, sectionOf, shownOn } from '#core/derive/menu.ts';
import { layoutOf } from '#core/derive/layouts.ts';
import type { PageId } from '#core/model/ids.ts';
import { MENU_SLOTS, type MenuSlot } from '#core/model/layout.ts';
import type { Menu } from '#core/model/menu.ts';
import { ancestorsOf } from '#core/model/site.ts';
import { type Html, type Markup, markup } from './html.ts';
import { MENU_SCRIPT } from './menu-script.ts';
import { siteWords } from './site-words.ts';
import { type LiveView, accountAddress, hrefOf, lockOf, signInAddress, signOutForm } from './live-view.ts';

const known = new WeakMap<LiveView, Map<string, readonly MenuEntry[]>>();

/** A menu for all visitors of one kind, made once; the same for all pages of a section. */
function entriesFor(view: LiveView, menu: Menu, current: PageId | null): readonly MenuEntry[] {
  const { site, derived, visitor, isSignedIn } = view;
  const section = goesBySection(menu) ? sectionOf(derived, current) : null;
  const made = known.get(view) ?? new Map<string, readonly MenuEntry[]>();
  known.set(view, made);
  const key = `${menu.id} ${section ?? ''}`;
  let entries = made.get(key);
  if (!entries) {
    const all = entriesOf(site, menu, derived, { belongs: visitor, isSignedIn }, section);
    made.set(key, (entries = view.place.isStatic ? withoutDoing(all) : all));
  }
  return entries;
}

/** The entries that lead somewhere or say something: files cannot sign anybody in. */
const withoutDoing = (entries: readonly MenuEntry[]): readonly MenuEntry[] =>
  entries.flatMap((entry) => (entry.does ? [] : [{ ...entry, entries: withoutDoing(entry.entries) }]));

/** The menu in a slot of the page's layout; nothing where the slot is empty, or the menu for this visitor. */
export function renderMenu(view: LiveView, slot: MenuSlot, current: PageId | null): Markup {
  const { site } = view;
  const words = siteWords(site.settings.language);
  const { menus } = layoutOf(site, current);
  const id = menus[slot];
  const menu = site.settings.menus.find((one) => one.id === id);
  if (!menu) return '';
  const entries = shownOn(entriesFor(view, menu, current), current);
  if (entries.length === 0) return '';
  const above = new Set(current === null ? [] : ancestorsOf(site, current).map((node) => node.id));
  const label = (entry: MenuEntry): Html => {
    const mark =
      entry.page === null
        ? ''
        : entry.page === current
          ? markup` aria-current="page"`
          : above.has(entry.page)
            ? markup` aria-current="true"`
            : '';
    const [start, end] = labelOf(view, entry);
    return markup`${start}${mark}${end}`;
  };
  const list = (items: readonly MenuEntry[]): Html[] =>
    items.map(
      (entry) =>
        markup`<li>${label(entry)}${entry.entries.length === 0 ? '' : markup`<ul>${list(entry.entries)}</ul>`}</li>`,
    );
  // A menu that stands in two places has a name in each, so that screen readers tell them apart.
  const isAgain = MENU_SLOTS.slice(0, MENU_SLOTS.indexOf(slot)).some((other) => menus[other] === id);
  const name = markup`aria-label="${isAgain ? `${menu.name}, ${words.slots[slot]}` : menu.name}"`;
  if (slot !== 'header') return markup`<nav ${name} class="menu-${slot}"><ul>${list(entries)}</ul></nav>`;
  // What is below an entry of the first level opens and closes: without a script, by keyboard and by touch.
  const first = entries.map((entry) =>
    entry.entries.length === 0
      ? markup`<li>${label(entry)}</li>`
      : markup`<li>${label(entry)}<details name="menu"><summary><span class="unseen">${words.pagesIn(entry.text)}</span></summary><ul>${list(entry.entries)}</ul></details></li>`,
  );
  return markup`<nav ${name} class="menu"><details class="fold"><summary>${words.menu}</summary><ul class="entries">${first}</ul></details></nav>${entries.some((entry) => entry.entries.length > 0) && MENU_SCRIPT}`;
}

/** An entry's label in two parts: what marks it as current stands between them. */
type Label = readonly [start: Html, end: Markup];

const labels = new WeakMap<LiveView, Map<MenuEntry, Label>>();

/** An entry's label, made once for all pages. */
function labelOf(view: LiveView, entry: MenuEntry): Label {
  let made = labels.get(view);
  if (!made) labels.set(view, (made = new Map()));
  let label = made.get(entry);
  if (!label) made.set(entry, (label = makeLabel(view, entry)));
  return label;
}

function makeLabel(view: LiveView, entry: MenuEntry): Label {
  // A form cannot be marked, and is no page's: its mark is always empty.
  if (entry.does === 'sign-out' && view.walk === null) return [signOutForm(view, entry.text), ''];
  const to = addressOf(view, entry);
  return to === null
    ? [markup`<span class="text"`, markup`>${entry.text}</span>`]
    : [markup`<a href="${to}"`, markup`>${entry.text}${entry.page === null ? '' : lockOf(view, entry.page)}</a>`];
}

function addressOf(view: LiveView, { leadsTo, does }: MenuEntry): string | null {
  if (does === 'sign-in') return signInAddress(view);
  if (does === 'account') return accountAddress(view);
  if (does === 'sign-out') return null;
  return leadsTo === null ? null : hrefOf(view.place, leadsTo);
}
