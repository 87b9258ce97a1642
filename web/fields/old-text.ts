import { withoutEmptyBoxes } from '#core/sketch/planned-boxes.ts';
import { DOMParser as TextParser } from '@tiptap/pm/model';
import { MAX_ALTERNATIVE_LENGTH, fileTypeOf } from '#core/files/file.ts';
import { type TextDocument, pageLink } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import { textSchema } from '#contract/rich-text.ts';
import type { LibraryFile } from '#contract/files.ts';
import type { OldTextAnswer } from '#contract/old-site.ts';
import { SECTION_DATA } from '#contract/section-nodes.ts';
import { asText, standAlone } from './pasted-html.ts';

/**
 * The text of an old page as a text of Spur: pictures and documents as sections, links to old pages as links to the pages that take
 * them over. @param pageAt the planned page for an address of the old site; null where none takes it over
 */
export function documentOfOldText(
  { html, files }: Pick<OldTextAnswer, 'html' | 'files'>,
  pageAt: (address: string) => PageId | null,
): TextDocument {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const fileAt = new Map(files.map(({ address, file }) => [address, file]));
  for (const image of page.querySelectorAll('img')) {
    const file = fileAt.get(image.getAttribute('src') ?? '');
    if (file && fileTypeOf(file.type).kind === 'picture') pictureAsSection(page, image, file);
  }
  for (const link of page.querySelectorAll('a[href]')) {
    const href = link.getAttribute('href')!;
    const file = fileAt.get(href);
    const target = file ? null : pageAt(href.split('#')[0]!);
    if (file) fileAsSection(page, link, file);
    else if (target !== null) link.setAttribute('href', pageLink(target));
  }
  const { html: tidied } = asText(page.body.innerHTML);
  const body = new DOMParser().parseFromString(tidied, 'text/html').body;
  return withoutEmptyBoxes(TextParser.fromSchema(textSchema).parse(body).toJSON() as TextDocument);
}

function pictureAsSection(page: Document, image: HTMLImageElement, file: LibraryFile): void {
  const section = page.createElement('figure');
  section.setAttribute(SECTION_DATA, 'picture');
  section.setAttribute('data-set-file', JSON.stringify(file.id));
  const words = image.alt.trim();
  if (words !== '' && file.alternative === '')
    section.setAttribute('data-set-alternative', JSON.stringify(words.slice(0, MAX_ALTERNATIVE_LENGTH)));
  const figure = image.closest('figure');
  section.textContent = figure?.querySelector('figcaption')?.textContent?.trim() ?? '';
  if (figure && figure.querySelectorAll('img').length === 1) figure.replaceWith(section);
  else standAlone(image.closest('a') ?? image, section);
}

const SECTION_OF = { document: 'download', film: 'film', sound: 'sound' } as const;

/** What a link leads to as a section of its own, behind the line that names it. */
function fileAsSection(page: Document, link: Element, file: LibraryFile): void {
  const { kind } = fileTypeOf(file.type);
  const words = link.textContent!.replace(/\s+/g, ' ').trim();
  // A picture that opens a larger one of itself is shown as it is.
  if (kind === 'picture' || kind === 'subtitles') {
    link.replaceWith(...link.childNodes);
    return;
  }
  const section = page.createElement('p');
  section.setAttribute(SECTION_DATA, SECTION_OF[kind]);
  section.setAttribute('data-set-file', JSON.stringify(file.id));
  if (kind === 'document') section.setAttribute('data-set-words', JSON.stringify(words.slice(0, 200)));
  const line = link.closest('p, li, td, dd');
  const isAlone = line !== null && line.textContent!.trim() === link.textContent!.trim();
  if (isAlone && line.tagName === 'P') standAlone(link, section);
  else {
    const place = line?.closest('ul, ol, table, dl') ?? line ?? link;
    place.after(section);
    link.replaceWith(...link.childNodes);
  }
}
