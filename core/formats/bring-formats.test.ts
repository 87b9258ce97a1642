import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { isAddress, readAddressList } from './address-list.ts';
import { readCsvTable, writeCsvTable } from './csv-table.ts';
import { guessColumns, readInventory } from './inventory-csv.ts';
import { readSitemapFile } from './sitemap-file.ts';
import { readSitemapTree } from './tree-lists.ts';

const rowsOf = (text: string) => {
  const table = readCsvTable(text);
  if (!table.ok) throw new Error(table.detail);
  return table;
};

it('a cell that a spreadsheet would work out is written as text, and comes back as it was', () => {
  const cells = ['=1+1', '+44 20', '-3', '@here', "'=1", "''@x", "it's", 'a=b'];
  const text = writeCsvTable(
    ['cell'],
    cells.map((cell) => [cell]),
  );
  expect(text.split('\r\n').slice(1, 5)).toEqual(["'=1+1", "'+44 20", "'-3", "'@here"]);
  const table = readCsvTable(text);
  expect(table.ok && table.rows.map((row) => row.cells[0])).toEqual(cells);
});

describe('CSV', () => {
  it('that was written reads back, whatever stands in the cells', () => {
    const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((text) => text.trim());
    holds(
      fc.property(
        fc.uniqueArray(fc.stringMatching(/^[a-z]{1,8}$/), { minLength: 2, maxLength: 5 }),
        fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { maxLength: 8 }),
        (columns, cells) => {
          const rows = cells
            .map((row) => row.slice(0, columns.length).map((text) => text.replace(/\r\n?/g, '\n').trim()))
            .filter((row) => row.some((text) => text !== ''));
          const table = rowsOf(writeCsvTable(columns, rows));
          expect(table.columns).toEqual(columns);
          expect(table.rows.map((row) => row.cells)).toEqual(rows);
        },
      ),
      { numRuns: 100 },
    );
  });

  it.each([
    [',', 'a,b\n1,2\n'],
    [';', 'a;b\n1;2\n'],
    ['tabs', 'a\tb\r\n1\t2\r\n'],
  ])('is read with %s between the cells', (_, text) => expect(rowsOf(text).rows[0]!.cells).toEqual(['1', '2']));

  it('counts the lines of rows that go over several', () => {
    const { rows } = rowsOf('a,b\n1,"x\ny"\n\n3,4\n');
    expect(rows.map(({ line, cells }) => [line, cells[0]])).toEqual([
      [2, '1'],
      [5, '3'],
    ]);
  });

  it('with rows of other lengths is filled up, and cut', () =>
    expect(rowsOf('a,b,c\n1\n1,2,3,4\n').rows.map(({ cells }) => cells)).toEqual([
      ['1', '', ''],
      ['1', '2', '3'],
    ]));

  it.each([
    ['a quotation mark that is not closed', 'a,b\n1,"x\n2,3\n', /never closed/],
    ['a quotation mark inside a cell', 'a,b\n1,x"y\n', /does not begin with one/],
    ['text after a closing quotation mark', 'a,b\n1,"x"y\n', /must come/],
    ['two columns of one name', 'a,a\n1,2\n', /‘a’/],
    ['nothing', '', /empty/],
  ])('is refused with %s, in words', (_, text, words) => {
    const table = readCsvTable(text);
    expect(table.ok ? '' : table.detail).toMatch(words);
  });
});

describe('an inventory as a table', () => {
  it.each([
    [['URL', 'Title', 'Visits'], { address: 0, title: 1, visits: 2 }],
    [['Page', 'Page title', 'Page views', 'Status code'], { address: 0, title: 1, visits: 2, status: 3 }],
    [['Link', 'Name', 'H1', 'Word count'], { address: 0, title: 1, headings: 2 }],
    [['colour', 'size'], {}],
  ])('tells its columns by their names: %j', (columns, expected) =>
    expect(guessColumns(columns)).toMatchObject(expected),
  );

  it('takes numbers as people write them, and says which are none', () => {
    const table = rowsOf('url,visits,words,headings\n/a,"1,234",12,One | Two\n/b,many,,\n/c,7.6,3,\n');
    const { pages, faults } = readInventory(table, { address: 0, visits: 1, words: 2, headings: 3 });
    expect(pages.map(({ visits, words, headings }) => [visits, words, headings.length])).toEqual([
      [1234, 12, 2],
      [null, null, 0],
      [8, 3, 0],
    ]);
    expect(faults).toEqual([{ line: 3, detail: expect.stringContaining('‘many’ in visits') as string }]);
  });

  it('leaves out rows without an address, and those that stand twice', () => {
    const { pages, faults } = readInventory(rowsOf('url,title\n,No\nnowhere,No\n/a,Yes\n/a,Again\n'), {
      address: 0,
      title: 1,
    });
    expect(pages.map(({ title }) => title)).toEqual(['Yes']);
    expect(faults.map(({ line }) => line)).toEqual([2, 3, 5]);
  });
});

describe('a list of addresses', () => {
  it('keeps every address once, and blames every other line that is not empty', () => {
    holds(
      fc.property(
        fc.array(fc.constantFrom('https://a.example/x', '/y', '', '  ', 'nonsense', 'ftp://x/', '/y Title'), {
          maxLength: 12,
        }),
        (lines) => {
          const { pages, faults } = readAddressList(lines.join('\n'));
          const filled = lines.filter((line) => line.trim() !== '');
          expect(pages.length + faults.length).toBe(filled.length);
          expect(new Set(pages.map(({ address }) => address)).size).toBe(pages.length);
          for (const { line } of faults) expect(lines[line - 1]!.trim()).not.toBe('');
        },
      ),
    );
  });

  it.each([
    ['https://old.example/a?b=c#d', true],
    ['http://localhost', true],
    ['/path', true],
    ['path', false],
    ['https://', false],
    ['javascript:alert(1)', false],
    [`/${'x'.repeat(2000)}`, false],
  ])('takes %s: %s', (text, expected) => expect(isAddress(text)).toBe(expected));
});

describe('a sitemap file', () => {
  const urlset = (...locs: string[]) =>
    `<?xml version="1.0"?><s:urlset xmlns:s="http://www.sitemaps.org/schemas/sitemap/0.9">${locs.map((loc) => `<s:url><s:loc>${loc}</s:loc></s:url>`).join('')}</s:urlset>`;

  it('is read whatever its prefix, with entities of XML undone and others left as they are', () => {
    const file = readSitemapFile(
      urlset(' https://x.example/a?b=1&amp;c=&#50; ', 'https://x.example/&unknown;', 'https://x.example/a?b=1&amp;c=2'),
    );
    expect(file).toMatchObject({ ok: true, addresses: ['https://x.example/a?b=1&c=2', 'https://x.example/&unknown;'] });
  });

  it('that is empty holds nothing, and an index names its files', () => {
    expect(readSitemapFile('<urlset></urlset>')).toMatchObject({ ok: true, kind: 'addresses', addresses: [] });
    const index = '<sitemapindex><sitemap><loc>https://x.example/1.xml</loc></sitemap></sitemapindex>';
    expect(readSitemapFile(index)).toMatchObject({ ok: true, kind: 'index', addresses: ['https://x.example/1.xml'] });
  });

  it.each([
    ['a document type', '<?xml version="1.0"?>\n<!DOCTYPE x>\n<urlset/>', 2],
    ['an element that is not closed', '<urlset>\n<url>\n</urlset>', 3],
    ['another root', '<feed/>', 1],
    ['no XML', 'hello', 1],
  ])('is refused with %s, and its line', (_, xml, line) => {
    const file = readSitemapFile(xml);
    expect(file.ok ? null : (file.line ?? 1)).toBe(line);
  });

  it('becomes a tree: a page a step, without the steps that all share', () => {
    const tree = readSitemapTree(
      urlset(
        'https://x.example/site/courses/oars',
        'https://x.example/site/courses',
        'https://x.example/site/visit%20us',
      ),
    );
    expect(tree.ok && tree.pages.map(({ parent, fields }) => [parent, fields.title, fields.slug])).toEqual([
      [null, 'Courses', 'courses'],
      [0, 'Oars', 'oars'],
      [null, 'Visit us', 'visit us'],
    ]);
  });

  it('has its front page first', () => {
    const tree = readSitemapTree(urlset('https://x.example/a/b', 'https://x.example/'));
    expect(tree.ok && tree.pages.map(({ parent, fields }) => [parent, fields.title])).toEqual([
      [null, 'Home'],
      [null, 'A'],
      [1, 'B'],
    ]);
  });
});
