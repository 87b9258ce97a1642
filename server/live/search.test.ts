import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { acceptContent } from '../contents/content-service.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;

const TEXTS = {
  ropes: ['Ropes and knots', 'Splicing is taught on Tuesdays. Bring your own gloves & a knife.'],
  bursaries: ['Bursaries', 'Nobody is turned away for want of money. Ask us about scholarships.'],
  workshops: ['Workshops', 'Two workshops stand on the quay; the larger one has a steam box for bending planks.'],
  logbook: [
    'Logbook',
    `${'Nothing but calm water. '.repeat(900)}A squall carried the foremast away.${' Fog again.'.repeat(500)}`,
  ],
  legal: ['Privacy', 'We keep names and addresses, and nothing of planks.'],
} as const;

function text(words: string) {
  const document = { type: 'doc' as const, content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] };
  return acceptContent({ id: contentIdOf(document), document });
}

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  const operations: Operation[] = [
    { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
    { name: 'page.add', page: toPageId('learn'), place: { parent: null }, title: { en: 'Learning' } },
    ...Object.entries(TEXTS).map(([id, [title, words]]): Operation => ({
      name: 'page.add',
      page: toPageId(id),
      place: { parent: toPageId('learn') },
      title: { en: title },
      content: text(words).id,
      ...(id === 'legal' && { access: { search: 'page' } }),
    })),
  ];
  operations.push({ name: 'release.make', pages: ['home', 'learn', ...Object.keys(TEXTS)].map(toPageId), retire: [] });
  const site = { ...siteAfter(operations, { ...emptySite(), key: 'quay' as Site['key'] }) };
  await server.site(
    'quay',
    site,
    Object.values(TEXTS).map(([, words]) => text(words)),
  );
});
afterAll(() => server.close());

const search = async (query: string, site = 'quay') => {
  const { text: page, status, headers } = await server.live(`/${site}/search?${query}`);
  const main = page.slice(page.indexOf('<main'), page.indexOf('</main>'));
  const titles = [...main.matchAll(/<li><a href="[^"]*">([^<]*)<\/a>/g)].map(([, title]) => title);
  return { status, headers, main, titles };
};

describe('the search of a site', () => {
  it('finds pages by the forms of their words, with trail and extract, what is marked kept apart from what is markup', async () => {
    const { main, titles } = await search('q=splice');
    expect(titles).toEqual(['Ropes and knots']);
    expect(main).toContain('<p class="where">Home › Learning</p>');
    expect(main).toContain('<mark>Splicing</mark> is taught on Tuesdays. Bring your own gloves &amp; a knife …<');
  });

  it('shows of a long text what stands around the word', async () => {
    const { main, titles } = await search('q=squalls');
    expect(titles).toEqual(['Logbook']);
    expect(main).toMatch(/<p>(\w+\.? )+A <mark>squall<\/mark> carried the foremast away\. Fog again\./);
    expect((await search('q=calm+water')).main).toMatch(/<p>Nothing but <mark>calm<\/mark> <mark>water<\/mark>\./);
  });

  it('puts a page that has the word in its title before one that has it in its text', async () => {
    expect((await search('q=workshop')).titles).toEqual(['Workshops']);
    expect((await search('q=%22nobody+is+turned%22')).titles).toEqual(['Bursaries']);
    expect((await search('q=knots+or+bursary')).titles).toEqual(['Ropes and knots', 'Bursaries']);
    expect((await search('q=knots+-splicing')).main).toContain('No page contains');
    // Words that no page has are no hindrance where a page need not have them.
    expect((await search('q=knots+or+zeppelin')).titles).toEqual(['Ropes and knots']);
    expect((await search('q=knots+-zeppelin')).titles).toEqual(['Ropes and knots']);
    expect((await search('q=knots+zeppelin')).titles).toEqual([]);
  });

  it.each([
    ['worskhops', 'Workshops'],
    ['bursery', 'Bursaries'],
    ['scolarships', 'Bursaries'],
    ['splycing', 'Ropes and knots'],
  ])('understands %s, and says that it is only close', async (asked, title) => {
    const { main, titles } = await search(`q=${asked}`);
    expect(titles).toEqual([title]);
    expect(main).toMatch(/No page contains exactly ‘\w+’. 1 page with similar words:/);
  });

  it('leaves out what is held back from it, by close words too', async () => {
    expect((await search('q=planks')).titles).toEqual(['Workshops']);
    expect((await search('q=plamks')).titles).toEqual(['Workshops']);
    expect((await search('q=privacy')).titles).toEqual([]);
  });

  it.each([
    ['', 'Search'],
    ['q=', 'Search'],
    ['q=%00', 'Search'],
    ['q=the+of', 'No page contains'],
    ['q=%3Cscript%3Ealert(1)%3C/script%3E', '&lt;script&gt;'],
    ["q='))--+|+%26+!+:*", 'No page contains'],
    [`q=${'word+'.repeat(500)}`, 'No page contains'],
    ['q=planks&part=-1', '1 page with'],
    ['q=planks&part=99', '1 page with'],
  ])('takes %s for what it is', async (query, words) => {
    const { status, main } = await search(query);
    expect(status).toBe(200);
    expect(main).toContain(words);
    expect(main).not.toContain('<script');
  });

  it('follows what goes live, is renamed, and is taken down', async () => {
    const found = async (words: string, titles: string[]) =>
      until(
        `${words} finds ${String(titles)}`,
        async () => String((await search(`q=${words}`)).titles) === String(titles),
      );
    await ines.operations(
      'quay',
      { name: 'page.add', page: 'oars', place: { parent: 'learn' }, title: { en: 'Feathering oars' } },
      { name: 'page.set', page: 'ropes', fields: { title: { en: 'Cordage' } } },
    );
    expect((await search('q=oars')).titles).toEqual([]);
    await ines.post('/api/sites/quay/releases', { pages: ['oars', 'ropes'], retire: [] });
    await found('oars', ['Feathering oars']);
    await found('cordage', ['Cordage']);
    await found('knots', []);
    await ines.operations('quay', { name: 'page.remove', page: 'oars' });
    await ines.post('/api/sites/quay/releases', { pages: [], retire: ['oars'] });
    await found('oars', []);
  });

  it('knows the forms of words in the language that the site has with a release, in texts that were saved before it too', async () => {
    const { id, document } = text('Wir bauen Segelboote aus Eiche.');
    await server.site('kai');
    const made = await ines.post('/api/sites/kai/operations', {
      operations: [
        { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
        { name: 'page.add', page: 'boote', place: { parent: null }, title: { en: 'Boats' }, content: id },
        { name: 'site.set', fields: { language: 'de' } },
        { name: 'page.set', page: 'boote', fields: { title: { de: 'Boote' } } },
      ],
      contents: [{ id, document }],
    });
    expect(made.status, made.text).toBe(200);
    await ines.post('/api/sites/kai/releases', { pages: 'all' });
    const titles = async (words: string) => (await search(`q=${words}`, 'kai')).titles;
    await until('the German form finds it', async () => String(await titles('segelboot')) === 'Boote');
    expect(await titles('eichen')).toEqual(['Boote']);
  });
});
