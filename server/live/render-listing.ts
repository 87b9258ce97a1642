import { type Listed, listedBelow, listingOf, turnsOfPage } from '#core/derive/listing.ts';
import { labelOf, leadsTo } from '#core/derive/menu.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { type Html, type Markup, markup } from './html.ts';
import { siteWords } from './site-words.ts';
import { type LiveView, hrefOf, lockOf, pathOf } from './live-view.ts';

/** What a page lists: the pages below it, so that what the menu has no room for can be reached; or the whole site. */
export function renderListing(view: LiveView, page: PageId): Markup {
  const { site, derived } = view;
  const { look } = listingOf(derived, derived.outline.rowOf.get(page)!);
  const listed = listedBelow(site, page, derived);
  if (listed.length === 0) return '';
  if (look === 'a to z') return renderByLetter(view, listed);
  const words = siteWords(site.settings.language);
  const isSitemap = look === 'sitemap';
  const list = markup`<ul${look === 'cards' ? markup` class="cards"` : ''}>${items(view, listed, !isSitemap)}</ul>`;
  return isSitemap
    ? markup`<nav aria-label="${words.allPages}" class="sitemap">${list}</nav>`
    : markup`<nav aria-label="${words.inThisSection}" class="section"><h2>${words.inThisSection}</h2>${list}</nav>`;
}

/** The pages before and after, as the section is read. */
export function renderTurns(view: LiveView, page: PageId): Markup {
  const { site, place, derived } = view;
  const said = siteWords(site.settings.language);
  const { before, after } = turnsOfPage(page, derived, (row) => view.locked[row] === 1);
  const turn = (row: number | null, rel: string, words: string) =>
    row === null
      ? ''
      : markup`<a rel="${rel}" href="${pathOf(place, derived.addresses[row]!)}"><span>${words}</span> ${labelOf(site, derived.outline.nodes[row]!)}</a>`;
  const turns = [turn(before, 'prev', said.previous), turn(after, 'next', said.next)].filter((one) => one !== '');
  return turns.length === 0 ? '' : markup`<nav aria-label="${said.turns}" class="turns">${turns}</nav>`;
}

function renderByLetter(view: LiveView, listed: readonly Listed[]): Html {
  const { site, derived } = view;
  const { language } = site.settings;
  const all = listed.flatMap(function flat(one): Listed[] {
    const isHeading = derived.outline.nodes[one.row]!.type === 'heading';
    return [...(isHeading ? [] : [{ row: one.row, below: [] }]), ...one.below.flatMap(flat)];
  });
  const name = ({ row }: Listed) => labelOf(site, derived.outline.nodes[row]!);
  const collator = new Intl.Collator(language, { numeric: true });
  all.sort((a, b) => collator.compare(name(a), name(b)));
  const letters = new Map<string, Listed[]>();
  for (const one of all) {
    const letter = [...name(one).normalize('NFD')][0]?.toLocaleUpperCase(language) ?? '';
    letters.set(letter, [...(letters.get(letter) ?? []), one]);
  }
  const words = siteWords(language);
  const groups = [...letters].map(
    ([letter, ones]) => markup`<li><span class="text">${letter}</span><ul>${items(view, ones, true)}</ul></li>`,
  );
  return markup`<nav aria-label="${words.aToZ}" class="section by-letter"><h2>${words.aToZ}</h2><ul>${groups}</ul></nav>`;
}

/** @param more what stands below the description of a page that is open */
export function items(
  view: LiveView,
  listed: readonly Listed[],
  withDescriptions: boolean,
  more: (row: number) => Markup = () => '',
): Html[] {
  const { site, place, derived } = view;
  return listed.map(({ row, below }) => {
    const node = derived.outline.nodes[row]!;
    const text = labelOf(site, node);
    const nested = below.length === 0 ? '' : markup`<ul>${items(view, below, withDescriptions, more)}</ul>`;
    const to = leadsTo(derived, row);
    if (to === null) return markup`<li><span class="text">${text}</span>${nested}</li>`;
    // What is behind a lock is named, and no more said of it.
    const description =
      withDescriptions && view.locked[row] === 0 ? textIn(node.description, site.settings.language) : '';
    return markup`<li><a href="${hrefOf(place, to)}">${text}${lockOf(view, node.id)}</a>${description === '' ? '' : markup`<p>${description}</p>`}${more(row)}${nested}</li>`;
  });
}
