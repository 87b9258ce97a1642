import { detailIn, maybeUsedField } from '#core/fields/values.ts';
import { type PageId, pageIdSchema } from '#core/model/ids.ts';
import { fieldIdSchema } from '#core/model/kind-field.ts';
import { PAGE_FIELDS_DATA } from '#core/sections/page-fields.ts';
import { PLAIN_PAGE_LIST } from '#core/sections/page-list.ts';
import { fieldContext, renderDetails, renderValue } from './details.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';
import { type LiveView, isNamed } from './live-view.ts';

const FIELD = 'data-detail';
const OF = 'data-of';

/**
 * A text with what pages say in their fields, in the places that name them: nothing for a field that visitors do not see, and for a page
 * that the visitor may not open. @param page the page that the text stands on
 */
export function withDetails(text: Html | '', view: LiveView, page: PageId): Html | '' {
  if (text === '' || !text.text.includes(FIELD)) return text;
  const places = elementsOf(text.text, (name, attributes) => name === 'span' && FIELD in attributes);
  // Words that lead somewhere already lead there with what they name.
  const links = elementsOf(text.text, (name) => name === 'a');
  return sound(
    withElements(text.text, places, ({ attributes, from }) => {
      const isInLink = links.some((link) => link.from < from && from < link.to);
      const of = attributes[OF] === '' ? page : pageIdSchema.safeParse(attributes[OF]).data;
      const said = of === undefined ? '' : valueOf(view, of, attributes[FIELD]!, of === page ? null : page);
      if (said === '') return '';
      return isInLink ? markup`${wordsIn(said)}`.text : said.text;
    }),
  );
}

/** Whether a text has the place in which the fields of its page stand; so they do not stand below its title. */
export const hasFieldsInIt = (text: Markup): boolean => text !== '' && placesOfFields(text).length > 0;

/** A text with the fields of its page in the first place for them. */
export function withFieldsOfPage(text: Html | '', view: LiveView, page: PageId): Html | '' {
  const [first, ...others] = text === '' ? [] : placesOfFields(text);
  if (text === '' || !first) return text;
  const said = renderDetails(view, page);
  return sound(
    withElements(text.text, [first, ...others], ({ from }) =>
      from === first.from ? markup`<div data-page-fields>${said}</div>`.text : '',
    ),
  );
}

const placesOfFields = ({ text }: Html) =>
  text.includes(PAGE_FIELDS_DATA)
    ? elementsOf(text, (name, attributes) => name === 'div' && PAGE_FIELDS_DATA in attributes)
    : [];

/** @param host the page whose text says something of another one; null where it says it of itself */
function valueOf(view: LiveView, of: PageId, named: string, host: PageId | null): Markup {
  const { derived, locked, site } = view;
  const id = fieldIdSchema.safeParse(named).data;
  const found = id && maybeUsedField(site.settings.labels, id);
  const row = derived.outline.rowOf.get(of);
  const isSeen = row !== undefined && isNamed(view, row) && locked[row] === 0;
  // After a release the page is made anew if the other one says something else, or is not seen any more: as one that lists it is.
  if (host !== null && id)
    view.listed?.({
      page: host,
      setting: { ...PLAIN_PAGE_LIST, from: 'chosen', chosen: [of], fields: [id] },
      shown: isSeen ? [of] : [],
      isOfTheDay: false,
    });
  if (!found?.field.isForVisitors || found.field.type === 'file' || !isSeen) return '';
  const value = detailIn(derived.outline.nodes[row!]!, found, fieldContext(view));
  return value === null ? '' : renderValue(view, found.field, value);
}

/** What a value says, without links. */
const wordsIn = ({ text }: Html): Html => {
  const links = elementsOf(text, (name) => name === 'a');
  return sound(withElements(text, links, (_, inner) => inner));
};
