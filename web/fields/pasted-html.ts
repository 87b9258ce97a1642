export interface PastedHtml {
  readonly html: string;
  /** How many tables became lines, and how many pictures were left out. */
  readonly tables: number;
  readonly pictures: number;
}

/**
 * What is pasted as a text can hold it: a table as lines, one a row, with its cells parted by bars; a picture as the words that stand
 * for it, where there are some. Nothing of it goes without a word.
 */
export function asText(html: string): PastedHtml {
  const page = new DOMParser().parseFromString(html, 'text/html');
  // From inside out, so that a table within a cell is a text by then.
  const tables = [...page.querySelectorAll('table')].reverse();
  for (const table of tables) {
    const lines = [...table.rows].map((row) => {
      const line = page.createElement('p');
      line.textContent = [...row.cells].map((cell) => (cell.textContent ?? '').replace(/\s+/g, ' ').trim()).join(' | ');
      return line;
    });
    const caption = table.caption?.textContent?.trim();
    if (caption) lines.unshift(Object.assign(page.createElement('p'), { textContent: caption }));
    table.replaceWith(...lines);
  }
  const pictures = [...page.querySelectorAll('img, picture, svg, video, canvas')].filter(
    (one) => one.parentElement?.closest('picture') === null,
  );
  for (const picture of pictures) {
    const words = (picture.getAttribute('alt') ?? picture.querySelector('img')?.alt ?? '').trim();
    picture.replaceWith(words === '' ? '' : `(Picture: ${words})`);
  }
  return { html: page.body.innerHTML, tables: tables.length, pictures: pictures.length };
}

/** What was done to what was pasted, in a sentence; null where nothing was. */
export function pastedWords({ tables, pictures }: Pick<PastedHtml, 'tables' | 'pictures'>): string | null {
  const said = [
    tables > 0 && `${tables === 1 ? 'The table was' : `${tables} tables were`} pasted as lines, one for each row.`,
    pictures > 0 &&
      `${pictures === 1 ? 'A picture was' : `${pictures} pictures were`} left out: texts cannot hold pictures yet.`,
  ].filter(Boolean);
  return said.length === 0 ? null : said.join(' ');
}
