import { type LiveView, isNamed, pathOf } from './live-view.ts';
import { type Html, markup, sound } from './html.ts';

const LINK = /<a [^>]*?href="page:([0-9A-Za-z]+)(#[a-z0-9-]+)?"[^>]*>([\s\S]*?)<\/a>/g;

/** A text with its links to pages of the site as addresses, wherever the pages stand now; words alone where the visitor may not know the page. */
export const withPageLinks = (text: string, view: LiveView): Html =>
  sound(
    text.replace(LINK, (_, page: string, heading: string | undefined, words: string) => {
      const { outline, addresses } = view.derived;
      const row = (outline.rowOf as ReadonlyMap<string, number>).get(page);
      if (row === undefined || !isNamed(view, row) || addresses[row] === null) return words;
      return markup`<a href="${pathOf(view.place, addresses[row]!)}${heading}">${sound(words)}</a>`.text;
    }),
  );
