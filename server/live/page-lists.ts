import { listedAs } from '#core/derive/listing.ts';
import { labelOf } from '#core/derive/menu.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { PAGE_LIST_DATA, type PageListSetting, pageListSchema } from '#core/sections/page-list.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';
import { type LiveView, hrefOf } from './live-view.ts';
import { leadsTo } from '#core/derive/menu.ts';
import { items } from './render-listing.ts';

/** A text with the pages in its lists of pages, as the visitor has them. @param page the page that the text is of */
export function withPageLists(text: Html | '', view: LiveView, page: PageId): Html | '' {
  if (text === '' || !text.text.includes(PAGE_LIST_DATA)) return text;
  const lists = elementsOf(text.text, (name, attributes) => name === 'div' && PAGE_LIST_DATA in attributes);
  return sound(
    withElements(text.text, lists, ({ attributes }) => {
      const list = renderList(view, page, settingIn(attributes[PAGE_LIST_DATA]!));
      return list === '' ? '' : list.text;
    }),
  );
}

/** The setting was checked when the text came in; one that cannot be read lists nothing. */
function settingIn(text: string): PageListSetting | null {
  try {
    return pageListSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

function renderList(view: LiveView, page: PageId, setting: PageListSetting | null): Markup {
  if (setting === null) return '';
  const { site, derived } = view;
  const of = setting.of ?? page;
  const row = derived.outline.rowOf.get(of);
  // What a visitor may not open lists nothing for them either.
  if (row === undefined || derived.hiddenBy[row] !== -1 || view.locked[row] === 1) return '';
  const all = listedAs(site, of, derived, { look: 'list', levels: 1, order: setting.order });
  const listed = setting.most === 0 ? all : all.slice(0, setting.most);
  if (listed.length === 0) return '';
  if (setting.look !== 'dates')
    return markup`<div class="section listed"><ul${setting.look === 'cards' ? markup` class="cards"` : ''}>${items(view, listed, true)}</ul></div>`;
  // English without a country has the day first, as the rest of Spur has it.
  const language = site.settings.language === 'en' ? 'en-GB' : site.settings.language;
  const days = new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' });
  const lines = listed.map((one) => {
    const node = nodeAt(site, derived.outline.nodes[one.row]!.id);
    const to = leadsTo(derived, one.row);
    const day = node.frame?.date;
    const words =
      to === null
        ? markup`${labelOf(site, node)}`
        : markup`<a href="${hrefOf(view.place, to)}">${labelOf(site, node)}</a>`;
    return markup`<li>${day ? markup`<time datetime="${day}">${days.format(new Date(day))}</time> ` : ''}${words}</li>`;
  });
  return markup`<div class="section listed"><ul class="dates">${lines}</ul></div>`;
}
