import MiniSearch from 'minisearch';
import { trailOf } from '#core/derive/trail.ts';
import { textIn } from '#core/model/texts.ts';
import { type Html, markup } from '../live/html.ts';
import { wordsOf } from '../live/html-elements.ts';
import type { LiveView } from '../live/live-view.ts';
import { NO_INDEX, renderFrame } from '../live/render-page.ts';
import { siteWords } from '../live/site-words.ts';
import { renderSearchForm } from '../live/search-form.ts';

/** Stands for how many were found, until the browser knows. */
const COUNT = 987654321;

/** The address of the search, live and among the files. */
export const SEARCH = '/search';

/** A page as the search knows it: the first three are searched, the others are shown. */
interface Searched {
  readonly id: number;
  readonly title: string;
  readonly about: string;
  readonly text: string;
  /** Its file, from the top of the folder. */
  readonly to: string;
  /** The titles above it. */
  readonly where: string;
  readonly extract: string;
}

/** What the browser needs to read the index again. */
const OPTIONS = { fields: ['title', 'about', 'text'], storeFields: ['title', 'to', 'where', 'extract'] };

const EXTRACT_LENGTH = 200;

/** The search of a site that stands as files: an index that the visitor's browser reads, and the page that asks it. */
export class StaticSearch {
  readonly #index = new MiniSearch<Searched>(OPTIONS);
  readonly #view: LiveView;

  constructor(view: LiveView) {
    this.#view = view;
  }

  /** Takes in a page, where search may find it. @param to its file, from the top of the folder @param html its text, as everyone gets it */
  add(row: number, to: string, html: string): void {
    const { site, derived, found } = this.#view;
    if (found[row] !== 1) return;
    const node = derived.outline.nodes[row]!;
    const { language } = site.settings;
    const about = textIn(node.description, language);
    const text = wordsOf(html);
    this.#index.add({
      id: row,
      title: textIn(node.title, language),
      about,
      text,
      to: encodeURI(to),
      where: trailOf(site, node.id, derived)
        .slice(0, -1)
        .map((step) => step.text)
        .join(' › '),
      extract: about === '' ? openingOf(text) : about,
    });
  }

  /** The page with the field and the results. */
  page(): Html {
    const { site } = this.#view;
    const words = siteWords(site.settings.language);
    return renderFrame(this.#view, {
      title: `${words.search} – ${site.settings.name}`,
      head: NO_INDEX,
      body: markup`<main id="content"><h1>${words.search}</h1>${renderSearchForm(this.#view, '', 'page')}
<p role="status" id="outcome"></p><noscript><p>${words.needsScript}</p></noscript>
<ol class="results"></ol></main><script src="/search/words.js" defer></script><script src="/search/search.js" defer></script>`,
      current: null,
      isSearch: true,
    });
  }

  /** What the search says in the browser: sentences with signs where what is asked and counted goes. */
  #said(): Record<string, string> {
    const words = siteWords(this.#view.site.settings.language);
    return {
      none: words.nothingFound('{asked}'),
      one: words.found(1, '{asked}'),
      some: words.found(COUNT, '{asked}').replace(String(COUNT), '{count}'),
      nearlyOne: words.nearlyFound(1, '{asked}'),
      nearly: words.nearlyFound(COUNT, '{asked}').replace(String(COUNT), '{count}'),
      best: words.bestOf(COUNT).replace(String(COUNT), '{count}'),
    };
  }

  /** The index as a script, since a browser reads no other file from a disk. */
  words(): string {
    return `window.siteWords = ${JSON.stringify({ options: OPTIONS, index: this.#index, said: this.#said() })};\n`;
  }
}

/** How a text begins, in whole words. */
function openingOf(text: string): string {
  if (text.length <= EXTRACT_LENGTH) return text;
  const end = text.lastIndexOf(' ', EXTRACT_LENGTH);
  return `${text.slice(0, end > 0 ? end : EXTRACT_LENGTH)} …`;
}
