import { type FileId, fileTypeOf, lengthWords } from '#core/files/file.ts';
import { type PicturePlace, SHOWN_AT, widthsOf } from '#core/files/picture-sizes.ts';
import { SUBTITLES_DATA } from '#core/sections/film.ts';
import { GALLERY_DATA, type GalleryPictures, gallerySchema } from '#core/sections/gallery.ts';
import { ALTERNATIVE_DATA, PLACE_DATA } from '#core/sections/picture.ts';
import { SHOWN_FILE } from '#core/sections/section-type.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { type HtmlElement, elementsOf, withElements } from './html-elements.ts';
import { type LiveFile, fileHref } from './live-files.ts';
import type { LiveView } from './live-view.ts';
import { siteWords } from './site-words.ts';

/** A text with the files that it shows, as the library has them; nothing in the place of one that is not there. */
export function withFiles(text: string, view: LiveView): string {
  if (!text.includes(SHOWN_FILE) && !text.includes(GALLERY_DATA)) return text;
  // What goes with a file, such as its caption, goes without it.
  const shown = elementsOf(
    text,
    (name, attributes) =>
      (name === 'figure' && /^(?:picture|film|sound)\b/.test(attributes.class ?? '')) ||
      (name === 'p' && attributes.class === 'download') ||
      GALLERY_DATA in attributes,
  );
  let isFirst = true;
  let galleries = 0;
  return withElements(text, shown, (element, inner) => {
    const isFirstPicture = isFirst;
    isFirst = false;
    return 'class' in element.attributes
      ? withFile(view, element, inner, isFirstPicture)
      : renderGallery(view, element.attributes[GALLERY_DATA]!, ++galleries);
  });
}

function withFile(view: LiveView, { name: tag, attributes }: HtmlElement, inner: string, isFirst: boolean): string {
  const [shown] = elementsOf(inner, (_, own) => SHOWN_FILE in own);
  const file = shown && view.files.get(shown.attributes[SHOWN_FILE] as FileId);
  if (!file) return '';
  const made = withElements(inner, [shown], () => renderFile(view, file, shown, isFirst).text);
  // A caption without words is none.
  const whole = made.replace('<figcaption></figcaption>', '');
  return `${markup`<${sound(tag)} class="${attributes.class!}">`.text}${whole}</${tag}>`;
}

function renderFile(view: LiveView, file: LiveFile, { name, attributes, words }: HtmlElement, isFirst: boolean): Html {
  switch (name) {
    case 'img':
      return renderPicture(view, file, {
        place: (attributes[PLACE_DATA] ?? 'text') as PicturePlace,
        alternative: attributes[ALTERNATIVE_DATA] ?? null,
        isFirst,
      });
    case 'video':
      return renderFilm(view, file, attributes[SUBTITLES_DATA]);
    case 'audio':
      return markup`<audio controls preload="none" src="${fileHref(view.place, file)}"></audio>`;
    default:
      return renderDownload(view, file, words);
  }
}

interface Shown {
  readonly place: PicturePlace;
  /** Words of its own for those who do not see it; null for the library's. */
  readonly alternative: string | null;
  /** Whether it may stand at the top of the page: others are fetched when they come into sight. */
  readonly isFirst: boolean;
}

/** A picture in the smallest form that each browser takes, with room kept for it before it comes. */
export function renderPicture(view: LiveView, file: LiveFile, { place, alternative, isFirst }: Shown): Html {
  const { ending } = fileTypeOf(file.type);
  const widths =
    file.width === null || !file.isReady || ending === 'svg' || ending === 'gif' ? [] : widthsOf(file.width);
  const set = (form: string) =>
    widths.map((width) => `${fileHref(view.place, file, `${width}.${form}`)} ${width}w`).join(', ');
  const sizes = SHOWN_AT[place];
  const words = alternative ?? (file.isDecoration ? '' : file.alternative);
  const size = file.width === null ? '' : markup` width="${file.width}" height="${file.height!}"`;
  const fetching = isFirst ? markup` fetchpriority="high"` : markup` loading="lazy"`;
  const own = widths.length === 0 ? '' : markup` srcset="${set(ending)}" sizes="${sizes}"`;
  const source =
    widths.length === 0 ? fileHref(view.place, file) : fileHref(view.place, file, `${usual(widths)}.${ending}`);
  const image = markup`<img src="${source}"${own}${size} alt="${words}" decoding="async"${fetching}${focus(file)}>`;
  const others = (['avif', 'webp'] as const).filter((form) => widths.length > 0 && form !== ending);
  if (others.length === 0) return image;
  const sources = others.map((form) => markup`<source type="image/${form}" srcset="${set(form)}" sizes="${sizes}">`);
  return markup`<picture>${sources}${image}</picture>`;
}

/** The size for browsers that choose none. */
const usual = (widths: readonly number[]): number => widths.find((one) => one >= 1024) ?? widths.at(-1)!;

/** What stays in sight where a picture is cut: a class, to the nearest fifth, since pages have no styles of their own. */
function focus({ focalX, focalY }: LiveFile): Markup {
  const [x, y] = [focalX, focalY].map((share) => Math.round(share * 4));
  return x === 2 && y === 2 ? '' : markup` class="focus-x${x!} focus-y${y!}"`;
}

function renderFilm(view: LiveView, file: LiveFile, subtitles: string | undefined): Html {
  const words = subtitles === undefined ? undefined : view.files.get(subtitles as FileId);
  const { language } = view.site.settings;
  const track = words
    ? markup`<track kind="captions" src="${fileHref(view.place, words)}" srclang="${language}" label="${words.name}" default>`
    : '';
  return markup`<video controls preload="metadata" src="${fileHref(view.place, file)}">${track}</video>`;
}

/** A file to download, with its type, its length and its pages. @param words blank for its name */
export function renderDownload(view: LiveView, file: LiveFile, words: string): Html {
  const { language } = view.site.settings;
  const facts = [
    fileTypeOf(file.type).words,
    lengthWords(file.length, language),
    ...(file.pages === null ? [] : [siteWords(language).pages(file.pages)]),
  ].join(', ');
  return markup`<a href="${fileHref(view.place, file)}">${words.trim() === '' ? file.name : words}</a> <small>${facts}</small>`;
}

/** Pictures side by side. Each opens large above the page, with a way to the next one and the one before, by the keyboard too. */
function renderGallery(view: LiveView, setting: string, number: number): string {
  const pictures = picturesIn(setting).flatMap(({ file, caption }) => {
    const found = view.files.get(file);
    return found && fileTypeOf(found.type).kind === 'picture' ? [{ file: found, caption }] : [];
  });
  if (pictures.length === 0) return '';
  const words = siteWords(view.site.settings.language);
  const idOf = (at: number) => `picture-${number}-${at + 1}`;
  const nameOf = (at: number) => pictures[at]!.caption || pictures[at]!.file.alternative || pictures[at]!.file.name;
  const tiles = pictures.map(
    ({ file }, at) =>
      markup`<li><button popovertarget="${idOf(at)}" aria-label="${words.openPicture(nameOf(at))}">${renderPicture(view, file, { place: 'tile', alternative: '', isFirst: false })}</button></li>`,
  );
  const step = (at: number, label: string): Markup =>
    pictures[at] ? markup`<button popovertarget="${idOf(at)}">${label}</button>` : '';
  const large = pictures.map(
    ({ file, caption }, at) =>
      markup`<div popover id="${idOf(at)}" role="dialog" aria-label="${nameOf(at)}"><figure>${renderPicture(view, file, { place: 'wide', alternative: null, isFirst: false })}${caption === '' ? '' : markup`<figcaption>${caption}</figcaption>`}</figure><p>${step(at - 1, words.previous)}<span>${at + 1} / ${pictures.length}</span>${step(at + 1, words.next)}<button popovertarget="${idOf(at)}" popovertargetaction="hide" autofocus>${words.close}</button></p></div>`,
  );
  return markup`<div class="gallery"><ul>${tiles}</ul>${large}</div>`.text;
}

/** The setting was checked when the text came in; one that cannot be read shows nothing. */
function picturesIn(setting: string): GalleryPictures {
  try {
    return gallerySchema.safeParse(JSON.parse(setting)).data ?? [];
  } catch {
    return [];
  }
}

/** The first picture of a text, as it stands in it, for previews of its page elsewhere. */
export function firstPicture(text: Markup): Readonly<Record<string, string>> | undefined {
  if (text === '' || !text.text.includes('<picture>')) return undefined;
  const [first] = elementsOf(text.text, (name) => name === 'img');
  return first?.attributes;
}
