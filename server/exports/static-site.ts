import type { FileContent } from '#core/files/file.ts';
import type { PageId } from '#core/model/ids.ts';
import { upTo } from '#core/model/cut-text.ts';
import { derivedFor } from '#core/derive/derived.ts';
import { leadingAddresses } from '#core/derive/redirects.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { writeRedirects } from '#core/formats/redirect-rules.ts';
import { NOBODY_KNOWN } from '#core/derive/access.ts';
import { markup } from '../live/html.ts';
import { type Assets, searchScript } from '../live/assets.ts';
import type { FileStore } from '../library/file-store.ts';
import { FILES_STEP, storedName } from '../live/live-files.ts';
import { isIcon, makeIcon } from '../library/icons.ts';
import type { Release } from '../live/live-repository.ts';
import type { LiveView } from '../live/live-view.ts';
import { feedAddress, feedOf, rowsBelow, hasFeed, sitemapFiles } from '../live/machine-files.ts';
import { answerAtRow, notFoundPage } from '../live/standing-pages.ts';
import { textFor } from '../live/text-for.ts';
import { leadingRules } from './leading-rules.ts';
import { previewAddress, previewOf } from '../live/page-previews.ts';
import { PreviewPictures } from '../live/preview-picture.ts';
import { SEARCH, StaticSearch } from './static-search.ts';

/** A file of the export: its path below the folder, and what is in it. */
export interface StaticFile {
  readonly path: string;
  /** A stream is read as the file is sent. */
  readonly content: string | Uint8Array | AsyncIterable<Uint8Array>;
}

export interface StaticParts {
  readonly release: Release;
  /** The whole address under which the files will stand, without a slash at the end. */
  readonly address: string;
  /** The stylesheets and the fonts of all looks. */
  readonly assets: Pick<Assets, 'filesOf' | 'fontBytes'>;
  /** The texts of everyone as HTML, by the ids of their contents. */
  readonly textsOf: (contents: readonly string[]) => Promise<ReadonlyMap<string, string>>;
  /** Where the bytes of the library's files lie. */
  readonly store: FileStore;
  /** Whether the files are opened from a disk, without a host: then links name the file in a folder, which a host finds by itself. */
  readonly isWithoutHost?: boolean;
  readonly now: number;
}

/** So many texts are read at once. */
const TEXTS_AT_ONCE = 500;
/** So many preview pictures are drawn beside each other, which leaves threads to others, and so many pages go on meanwhile. */
const PICTURES_AT_ONCE = 2;
const PICTURES_AHEAD = 16;

/**
 * What everyone may see of a release, as files that any host of files serves: a page is `index.html` in the folder of its address,
 * and its links are relative. Pages that are closed to everyone, also those with a lock, are not among them, nor is signing in.
 * The search works in the visitor's browser. `onPage` is told each page.
 */
export async function* staticFiles(
  parts: StaticParts,
  onPage: () => void = () => undefined,
): AsyncGenerator<StaticFile> {
  const { release, assets } = parts;
  const previews = new PreviewPictures(parts.store, (family) => assets.fontBytes(family), PICTURES_AT_ONCE);
  const drawing: Promise<StaticFile>[] = [];
  const view = viewOfEveryone(parts);
  const { derived } = view;
  const { addresses, outline, hiddenBy } = derived;
  const file = parts.isWithoutHost === true ? 'index.html' : '';
  for (const [path, bytes] of assets.filesOf(release.site.settings.look).bytes) {
    const css = path.endsWith('.css');
    // The stylesheet names its fonts from the top of the host; here they stand beside it.
    yield { path: `assets${path}`, content: css ? text(bytes).replaceAll("url('/assets/", "url('") : bytes };
  }
  const search = new StaticSearch(view);
  const shown = new Set<string>();
  const rows = addresses.flatMap((address, row) => (address !== null && hiddenBy[row] === -1 ? [row] : []));
  for (let at = 0; at < rows.length; at += TEXTS_AT_ONCE) {
    const some = rows.slice(at, at + TEXTS_AT_ONCE);
    const wanted = some.flatMap((row) => outline.nodes[row]!.content ?? []);
    const texts = await parts.textsOf(wanted);
    for (const row of some) {
      const address = addresses[row]!;
      const ownText = texts.get(outline.nodes[row]!.content ?? '') ?? '';
      search.add(row, folderOf(address.slice(1), file), ownText);
      const { html } = await answerAtRow(view, row, address, (content) =>
        Promise.resolve(textFor(texts.get(content) ?? '', view)),
      );
      for (const [, file] of html.text.matchAll(SHOWN)) shown.add(file!);
      const preview = previewFile(previews, view, outline.nodes[row]!.id, html.text);
      if (preview) drawing.push(preview);
      if (drawing.length > PICTURES_AHEAD) yield await drawing.shift()!;
      onPage();
      yield { path: fileOf(address), content: relative(html.text, address, file) };
      if (hasFeed(view, row))
        yield { path: feedAddress(address).slice(1), content: feedOf(view, row, rowsBelow(view, row), release.liveAt) };
    }
  }
  for (const preview of drawing) yield await preview;
  yield { path: fileOf(SEARCH), content: relative(search.page().text, SEARCH, file) };
  yield { path: 'search/words.js', content: search.words() };
  yield { path: 'search/search.js', content: await searchScript() };
  const standsIn = view.standingIn.get('not-found');
  const own = standsIn === undefined ? null : outline.nodes[standsIn]!.content;
  const ownTexts = own === null ? new Map<string, string>() : await parts.textsOf([own]);
  const notFound = await notFoundPage(view, [], (content) =>
    Promise.resolve(textFor(ownTexts.get(content) ?? '', view)),
  );
  for (const [, one] of notFound.text.matchAll(SHOWN)) shown.add(one!);
  // A host serves it at any depth, so its links are whole.
  yield {
    path: '404.html',
    content: withSizes(notFound.text, `${parts.address}/`).replace(
      LOCAL,
      (_, name: string, to: string) => `${name}="${parts.address}/${folderOf(to, '')}"`,
    ),
  };
  for (const [name, xml] of sitemapFiles(view, release.liveAt)) yield { path: name, content: xml };
  yield { path: 'robots.txt', content: `User-agent: *\nAllow: /\n\nSitemap: ${parts.address}/sitemap.xml\n` };
  yield* libraryFiles(parts.store, view, shown);
  yield* redirectFiles(parts, view);
}

function viewOfEveryone({ release, address, assets, now }: StaticParts): LiveView {
  const { stylesheet } = assets.filesOf(release.site.settings.look);
  const place = { base: '', origin: address, stylesheet, isStatic: true };
  const view = visitorView(release.site, NOBODY_KNOWN, now, false, false);
  // Pages that stand in for signing in and the like have nothing to do where nobody can.
  const { outline, isForOthers } = view.derived;
  const hiddenBy = view.derived.hiddenBy.slice();
  for (const row of outline.ruled) if (outline.nodes[row]!.access!.standsIn !== null) hiddenBy[row] = row;
  return { ...view, derived: derivedFor(view.derived, hiddenBy, isForOthers), place, walk: null, files: release.files };
}

/** The files that pages show, at the addresses that they name. */
async function* libraryFiles(store: FileStore, view: LiveView, shown: ReadonlySet<string>): AsyncGenerator<StaticFile> {
  const byContent = new Map([...view.files.values()].map((file) => [file.content as string, file]));
  for (const path of shown) {
    const [content, step] = path.split('/') as [FileContent, string];
    const file = byContent.get(content);
    const stored = file && storedName(file, step);
    if (stored && isIcon(stored[0])) await makeIcon(store, content, file, stored[0]);
    const bytes = stored && (await store.get(content, stored[0]));
    if (bytes) yield { path: `${FILES_STEP}/${path}`, content: bytes.read() };
  }
}

/** The preview picture of a page, while it is drawn; null where the page names none. */
function previewFile(
  previews: PreviewPictures,
  view: LiveView,
  page: PageId,
  html: string,
): Promise<StaticFile> | null {
  const preview = previewOf(view, page);
  const path = previewAddress(view.place, page, preview).slice(1);
  const picture = html.includes(path) ? previews.of(preview) : null;
  if (!picture) return null;
  const file = picture.then((content) => ({ path, content }));
  // It is waited for in its turn; until then a fault is nobody's.
  file.catch(() => undefined);
  return file;
}

/** The redirects as rules for hosts that take them, and for others a page at each old address that leads on. */
function* redirectFiles({ release, address }: StaticParts, view: LiveView): Generator<StaticFile> {
  const rules = leadingRules(leadingAddresses(release.whole, release.sources), view.derived, address);
  for (const { path, to, isPattern } of rules)
    if (to !== null && !isPattern && isFolder(path)) yield { path: fileOf(path), content: leadingOn(to) };
  yield { path: 'redirects.csv', content: writeRedirects('redirects.csv', rules) };
  yield { path: 'redirects.nginx.conf', content: writeRedirects('redirects.nginx', rules) };
  yield { path: 'redirects.htaccess', content: writeRedirects('redirects.apache', rules) };
}

/** Whether an old address can be a folder of its own: it has no query and no ending, and its steps are names that hosts can hold. */
const isFolder = (path: string): boolean =>
  !/[?\\\0]|\.\w+$/.test(path) &&
  path
    .slice(1)
    .split('/')
    .every((step) => step !== '' && !/^\.{1,2}$/.test(step) && encodeURI(step).length <= 200);

const leadingOn = (to: string): string =>
  markup`<!doctype html>\n<meta charset="utf-8"><title>Moved</title><link rel="canonical" href="${to}"><meta http-equiv="refresh" content="0; url=${to}"><p>This page is at <a href="${to}">${to}</a> now.</p>\n`
    .text;

const fileOf = (address: string): string => (address === '/' ? 'index.html' : `${address.slice(1)}/index.html`);

/** What follows a page's own place in a link: a folder for a page, with the file in it where that is to be named; a file for what has a name with an ending. */
function folderOf(path: string, file: string): string {
  const steps = upTo(path, '?', '#');
  if (steps.startsWith('assets/') || steps.startsWith(`${FILES_STEP}/`) || /\.(xml|txt|js)$/.test(steps)) return path;
  return `${steps === '' ? '' : `${steps}/`}${file}${path.slice(steps.length)}`;
}

/** An attribute that leads to an address of the site itself. */
const LOCAL = /\b(href|src|action)="\/([^"]*)"/g;
/** The addresses of a picture's sizes, and one of them. */
const SIZES = /\bsrcset="([^"]*)"/g;
const SHOWN = new RegExp(`/${FILES_STEP}/([0-9a-f]{32}/[\\w.-]+)`, 'g');

/** The sizes of pictures with another way to the top of the site. */
const withSizes = (html: string, up: string): string =>
  html.replace(SIZES, (_, set: string) => `srcset="${set.replaceAll(/(^|, )\//g, `$1${up}`)}"`);

/** A page with its links relative to where it stands. @param file what is named in a folder; '' where a host finds it */
function relative(html: string, address: string, file: string): string {
  const depth = address === '/' ? 0 : address.split('/').length - 1;
  const up = depth === 0 ? './' : '../'.repeat(depth);
  return withSizes(html, up).replace(LOCAL, (_, name: string, to: string) => `${name}="${up}${folderOf(to, file)}"`);
}

const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
