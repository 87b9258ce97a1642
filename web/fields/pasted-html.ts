import { MAX_ALTERNATIVE_LENGTH } from '#core/files/file.ts';
import { listsOfParagraphs } from './pasted-lists.ts';
import { type LeftBehind, withoutStyling } from './pasted-styling.ts';
import { type Carried, carry } from './sections/insert-files.ts';
import { SECTION_DATA } from '#contract/section-nodes.ts';

/** The editor marks what is copied from it. */
const OWN_SLICE = 'data-pm-slice=';
const UNCHANGED = { tables: 0, headed: 0, pictures: 0, styling: false, links: 0, fields: 0, carried: [] } as const;

export interface PastedHtml extends LeftBehind {
  readonly html: string;
  /** How many tables within tables became lines, how many got a header, and how many pictures were left out. */
  readonly tables: number;
  readonly headed: number;
  /** How many pictures were left out, since only another program or site has them. */
  readonly pictures: number;
  /** The pictures that came along: they stand in the text by the ids that they have until they are sent. */
  readonly carried: readonly Carried[];
}

/**
 * What is pasted as a text can hold it, whatever program it comes from: headings, lists, tables and links without their styling; a table within a table as lines, one a row, with its cells parted by bars; one that has no header
 * gets its first row as that; a picture as a section where it came along, else as the words that stand for it, where there are some.
 * Nothing of it goes without a word.
 */
export function asText(html: string): PastedHtml {
  // What was copied from a text of Spur is as it should be.
  if (html.includes(OWN_SLICE)) return { ...UNCHANGED, html };
  const page = new DOMParser().parseFromString(html, 'text/html');
  listsOfParagraphs(page);
  const leftBehind = withoutStyling(page);
  // From inside out, so that a table within a cell is a text by then.
  const within = [...page.querySelectorAll('table table')].reverse() as HTMLTableElement[];
  for (const table of within) {
    const lines = [...table.rows].map((row) => {
      const line = page.createElement('p');
      line.textContent = [...row.cells].map((cell) => (cell.textContent ?? '').replace(/\s+/g, ' ').trim()).join(' | ');
      return line;
    });
    const caption = table.caption?.textContent?.trim();
    if (caption) lines.unshift(Object.assign(page.createElement('p'), { textContent: caption }));
    table.replaceWith(...lines);
  }
  const headed = [...page.querySelectorAll('table')].filter(
    (table) => table.rows.length > 1 && table.querySelector('th') === null,
  );
  for (const table of headed)
    for (const cell of [...table.rows[0]!.cells]) {
      const header = page.createElement('th');
      header.append(...cell.childNodes);
      for (const { name, value } of [...cell.attributes]) header.setAttribute(name, value);
      cell.replaceWith(header);
    }
  for (const { caption } of page.querySelectorAll('table')) {
    if (!caption) continue;
    caption.parentElement!.before(Object.assign(page.createElement('p'), { textContent: caption.textContent }));
    caption.remove();
  }
  const pictures = [...page.querySelectorAll('img, picture, svg, video, canvas')].filter(
    (one) => one.parentElement?.closest('picture') === null,
  );
  const carried: Carried[] = [];
  for (const picture of pictures) {
    const image = picture.matches('img') ? (picture as HTMLImageElement) : picture.querySelector('img');
    const words = (image?.alt ?? '').trim();
    const file = pictureIn(image?.src ?? '');
    if (file === null) {
      picture.replaceWith(words === '' ? '' : `(Picture: ${words})`);
      continue;
    }
    const one = carry(file);
    const section = page.createElement('figure');
    section.setAttribute(SECTION_DATA, 'picture');
    section.setAttribute('data-set-file', JSON.stringify(one.id));
    if (words !== '')
      section.setAttribute('data-set-alternative', JSON.stringify(words.slice(0, MAX_ALTERNATIVE_LENGTH)));
    standAlone(picture, section);
    carried.push(one);
  }
  return {
    html: page.body.innerHTML,
    ...leftBehind,
    tables: within.length,
    headed: headed.length,
    pictures: pictures.length - carried.length,
    carried,
  };
}

/** Puts a section in the place of a picture: a line holds none, so it stands behind the line, or in its place where nothing is left of it. */
export function standAlone(picture: Element, section: Element): void {
  const line = picture.closest('p, h2, h3, h4');
  if (!line) {
    picture.replaceWith(section);
    return;
  }
  picture.remove();
  const isEmpty = (line.textContent ?? '').trim() === '' && line.querySelector('img, figure') === null;
  if (isEmpty) line.replaceWith(section);
  else line.after(section);
}

/** The picture that an address holds itself (RFC 2397); null where it lies elsewhere. */
function pictureIn(address: string): File | null {
  const [, type, data] = /^data:(image\/[a-z+]+);base64,([A-Za-z0-9+/=\s]+)$/.exec(address) ?? [];
  if (type === undefined) return null;
  try {
    const bytes = Uint8Array.from(atob(data!), (sign) => sign.charCodeAt(0));
    return new File([bytes], `Picture.${type.slice(6).replace('+xml', '')}`, { type });
  } catch {
    return null;
  }
}

/** What was done to what was pasted, in a sentence; null where nothing was. */
export function pastedWords({
  tables,
  headed,
  pictures,
  styling,
  links,
  fields,
}: Omit<PastedHtml, 'html' | 'carried'>): string | null {
  const said = [
    styling && 'Colours, fonts and sizes were left out.',
    links > 0 &&
      (links === 1
        ? 'One link works only on the page that it came from; its words were kept.'
        : `${links} links work only on the page that they came from; their words were kept.`),
    fields > 0 && `${fields === 1 ? 'A field or button was' : `${fields} fields and buttons were`} left out.`,
    tables > 0 &&
      `${tables === 1 ? 'A table within a table was' : `${tables} tables within tables were`} pasted as lines, one for each row.`,
    headed > 0 && `The first row of ${headed === 1 ? 'the table' : `${headed} tables`} was taken as its header.`,
    pictures > 0 &&
      `${pictures === 1 ? 'A picture was' : `${pictures} pictures were`} left out: ${pictures === 1 ? 'it lies' : 'they lie'} on another site or in another program. Save ${pictures === 1 ? 'it' : 'them'} and drop ${pictures === 1 ? 'it' : 'them'} into the text.`,
  ].filter(Boolean);
  return said.length === 0 ? null : said.join(' ');
}
