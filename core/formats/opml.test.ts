import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { siteAfter } from '../testing/random-site.ts';
import { readOpml, writeOpml } from './opml.ts';

const pagesOf = (xml: string) => {
  const tree = readOpml(xml);
  if (!tree.ok) throw new Error(JSON.stringify(tree.faults));
  return tree.pages;
};
const opml = (body: string) => `<?xml version="1.0"?><opml version="2.0"><head/><body>${body}</body></opml>`;

describe('OPML', () => {
  it('of another program is read by its texts and links', () => {
    const pages = pagesOf(
      opml(
        '<outline text="News &amp; notes"><outline text="Weather" type="rss" htmlUrl="https://weather.example/" xmlUrl="https://weather.example/feed"/><outline title="Only a title"/></outline>',
      ),
    );
    expect(pages.map(({ parent, fields }) => [parent, fields.title, fields.type, fields.target])).toEqual([
      [null, 'News & notes', undefined, undefined],
      [0, 'Weather', 'link', { url: 'https://weather.example/' }],
      [0, 'Only a title', undefined, undefined],
    ]);
  });

  it('is written with what other programs understand, and with the rest in a namespace of its own', () => {
    const xml = writeOpml(
      siteAfter([
        { name: 'page.add', page: toPageId('a'), place: { parent: null }, title: { en: 'A "great" <page>' } },
        {
          name: 'page.add',
          page: toPageId('b'),
          place: { parent: toPageId('a') },
          type: 'link',
          title: { en: 'Elsewhere' },
          target: { url: 'https://x.example/?a=1&b=2' },
        },
      ]),
    );
    expect(xml).toContain('<opml version="2.0"');
    expect(xml).toMatch(/<outline text="Elsewhere" type="link" url="https:\/\/x\.example\/\?a=1&amp;b=2"/);
    expect(pagesOf(xml).map(({ id, fields }) => [id, fields.title])).toEqual([
      ['a', 'A "great" <page>'],
      ['b', 'Elsewhere'],
    ]);
  });

  it('calls an outline without a text ‘Untitled’, gives an id that stands twice anew, and notes both', () => {
    const tree = readOpml(
      opml('<outline text=" "/><outline xmlns:spur="x" text="A" spur:id="a"/><outline text="B" spur:id="a"/>'),
    );
    expect(tree.ok && tree.pages.map(({ id, fields }) => [id, fields.title])).toEqual([
      [null, 'Untitled'],
      ['a', 'A'],
      [null, 'B'],
    ]);
    expect(tree.ok && tree.notes.map(({ line }) => line)).toEqual([1, 3]);
  });

  it('that is empty brings nothing', () => {
    expect(pagesOf(opml(''))).toEqual([]);
    expect(pagesOf('<opml version="2.0"/>')).toEqual([]);
  });

  it.each([
    ['a document type', '<!DOCTYPE opml SYSTEM "x"><opml version="2.0"><body/></opml>'],
    ['another root', '<rss/>'],
    ['an attribute that stands twice', '<opml version="2.0" version="1.0"><body/></opml>'],
    ['what breaks off', '<opml version="2.0"><body><outline text="A">'],
  ])('is refused with %s', (_, xml) => expect(readOpml(xml)).toMatchObject({ ok: false, faults: [{}] }));
});
