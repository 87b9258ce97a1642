import type { PageId } from '#core/model/ids.ts';
import { type LiveView, isNamed, pathOf } from './live-view.ts';
import { type Html, markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';

const TO_PAGE = 'page:';

/** A text with its links to pages of the site as addresses, wherever the pages stand now; words alone where the visitor may not know the page. */
export function withPageLinks(text: string, view: LiveView): Html {
  if (!text.includes(TO_PAGE)) return sound(text);
  const { outline, addresses } = view.derived;
  const links = elementsOf(text, (name, { href }) => name === 'a' && href !== undefined && href.startsWith(TO_PAGE));
  return sound(
    withElements(text, links, ({ attributes }, words) => {
      const [page, heading] = attributes.href!.slice(TO_PAGE.length).split('#');
      const row = outline.rowOf.get(page as PageId);
      if (row === undefined || !isNamed(view, row) || addresses[row] === null) return words;
      const address = pathOf(view.place, addresses[row]!) + (heading === undefined ? '' : `#${heading}`);
      return markup`<a href="${address}">${sound(words)}</a>`.text;
    }),
  );
}
