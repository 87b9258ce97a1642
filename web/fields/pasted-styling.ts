/** What was left behind of what is pasted, apart from its tables and pictures. */
export interface LeftBehind {
  /** Whether there were colours, fonts, sizes or the like. */
  readonly styling: boolean;
  /** How many links led to an address that only the other page knows. */
  readonly links: number;
  /** How many fields and buttons there were. */
  readonly fields: number;
}

const NO_TEXT = 'script, style, meta, link, title, noscript, template, object, embed, iframe, head';
const FIELDS = 'input, select, textarea, button';
/** Styles that are more than the text can say; what is bold, slanting or struck is kept. */
const STYLING = new Set([
  'color',
  'background',
  'background-color',
  'font-family',
  'font-size',
  'font',
  'letter-spacing',
]);
/** Colours and the like that are those of any text. */
const USUAL = new Set([
  ...['black', 'windowtext', '#000', '#000000', 'rgb(0, 0, 0)', 'white', '#fff', '#ffffff', 'rgb(255, 255, 255)'],
  ...['transparent', 'none', 'inherit', 'initial'],
]);
const HIDDEN = /display\s*:\s*none|visibility\s*:\s*hidden|mso-hide\s*:\s*all/i;
/** A picture of so many pixels shows nothing: mails count their readers by such. */
const NO_PICTURE = 2;

/** Takes out of a page what is no text, and makes its headings those of a text. */
export function withoutStyling(page: Document): LeftBehind {
  const styled = [...page.querySelectorAll<HTMLElement>('[style]')];
  const isStyled = (one: HTMLElement): boolean =>
    one
      .getAttribute('style')!
      .toLowerCase()
      .split(';')
      .map((said) => said.split(':').map((part) => part.trim()))
      .some(([name = '', value = '']) => STYLING.has(name) && !USUAL.has(value));
  const styling = styled.some(isStyled) || page.querySelector('font') !== null;
  for (const one of styled) if (HIDDEN.test(one.getAttribute('style')!)) one.remove();
  for (const one of page.querySelectorAll(`${NO_TEXT}, [hidden], [aria-hidden="true"]:not(svg, img)`)) one.remove();
  for (const image of page.querySelectorAll('img'))
    if ([image.getAttribute('width'), image.getAttribute('height')].some((one) => one && Number(one) <= NO_PICTURE))
      image.remove();
  const fields = [...page.querySelectorAll(FIELDS)];
  for (const field of fields) field.remove();
  const links = linksOfTheirPage(page);
  blocksApart(page);
  headingsOfText(page);
  for (const list of page.querySelectorAll('dl')) describedAsLines(page, list);
  linesApart(page);
  // What is left empty by all that goes, from the inside out.
  for (const one of [...page.querySelectorAll('li, ul, ol')].reverse())
    if (one.textContent!.trim() === '' && !one.querySelector('img, figure, table')) one.remove();
  return { styling, links, fields: fields.length };
}

const BLOCKS = 'p, div, h1, h2, h3, h4, h5, h6, ul, ol, table, blockquote, pre, figure, hr';

/** Blocks stand in no line: what is set around them as if they did goes, and so do breaks between two blocks. */
function blocksApart(page: Document): void {
  for (const around of [...page.querySelectorAll('b, strong, i, em, u, span, font, a')].reverse())
    if (around.querySelector(BLOCKS)) around.replaceWith(...around.childNodes);
  for (const line of page.querySelectorAll('br')) {
    const besides = [line.previousElementSibling, line.nextElementSibling];
    const isBetween = besides.some((one) => one?.matches(BLOCKS)) && !isBesideWords(line);
    if (isBetween) line.remove();
  }
}

const isBesideWords = (line: Element): boolean =>
  [line.previousSibling, line.nextSibling].some(
    (one) => one?.nodeType === Node.TEXT_NODE && (one.textContent ?? '').trim() !== '',
  );

/** Links that begin at the page they stood on lead nowhere from here: their words stay. Gives how many there were. */
function linksOfTheirPage(page: Document): number {
  const lost = [...page.querySelectorAll('a[href]')].filter(
    (link) => !/^(?:https?:|mailto:|tel:|page:)/i.test(link.getAttribute('href')!.trim()),
  );
  for (const link of lost) link.replaceWith(...link.childNodes);
  // A place on their page is no loss.
  return lost.filter((link) => !link.getAttribute('href')!.trim().startsWith('#')).length;
}

/** Headings of levels 2 to 4: the title of the page is of level 1, so one level lower where they begin with that. */
function headingsOfText(page: Document): void {
  for (const one of page.querySelectorAll('[role=heading]')) {
    const level = Math.min(6, Math.max(1, Number(one.getAttribute('aria-level')) || 2));
    if (!/^H[1-6]$/.test(one.tagName)) asElement(page, one, `h${level}`);
  }
  const by = page.querySelector('h1') ? 1 : 0;
  for (const heading of page.querySelectorAll('h1, h2, h3, h4, h5, h6')) {
    const level = Math.min(4, Math.max(2, Number(heading.tagName[1]) + by));
    if (heading.textContent!.trim() === '' && !heading.querySelector('img')) heading.remove();
    else if (heading.tagName !== `H${level}`) asElement(page, heading, `h${level}`);
  }
}

function asElement(page: Document, element: Element, name: string): void {
  const made = page.createElement(name);
  made.append(...element.childNodes);
  element.replaceWith(made);
}

/** A list of descriptions as lines, what is described in bold. */
function describedAsLines(page: Document, list: HTMLDListElement): void {
  const lines = [...list.querySelectorAll('dt, dd')].map((one) => {
    const line = page.createElement('p');
    if (one.tagName === 'DT') {
      const bold = page.createElement('strong');
      bold.append(...one.childNodes);
      line.append(bold);
    } else line.append(...one.childNodes);
    return line;
  });
  list.replaceWith(...lines);
}

/** Two breaks in a row are how mails part paragraphs. */
function linesApart(page: Document): void {
  for (const block of page.querySelectorAll('p, div, td, blockquote, li')) {
    if (block.closest('pre')) continue;
    const breaks = [...block.querySelectorAll(':scope > br')].filter((one) => next(one)?.nodeName === 'BR');
    if (breaks.length === 0) continue;
    const lines: ChildNode[][] = [[]];
    for (const child of [...block.childNodes]) {
      if (child.nodeName === 'BR' && next(child)?.nodeName === 'BR') lines.push([]);
      else if (child.nodeName !== 'BR' || lines.at(-1)!.length > 0) lines.at(-1)!.push(child);
    }
    const made = lines.filter((line) => line.some(({ textContent }) => (textContent ?? '').trim() !== ''));
    const paragraphs = made.map((line) => {
      const paragraph = page.createElement('p');
      paragraph.append(...line);
      return paragraph;
    });
    if (block.tagName === 'P') block.replaceWith(...paragraphs);
    else block.replaceChildren(...paragraphs);
  }
}

/** What follows, spaces aside. */
function next(node: Node): Node | null {
  let at = node.nextSibling;
  while (at && at.nodeType === Node.TEXT_NODE && (at.textContent ?? '').trim() === '') at = at.nextSibling;
  return at;
}
