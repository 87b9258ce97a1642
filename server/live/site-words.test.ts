import { load } from 'cheerio';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, startTestServer } from '../testing/test-server.ts';
import { ENGLISH } from './site-words-english.ts';
import { WORD_LANGUAGES, siteWords } from './site-words.ts';

/** Each of the words, with something for what goes in. */
function saidBy(words: ReturnType<typeof siteWords>): [string, string][] {
  const flat = (key: string, value: unknown): [string, string][] =>
    typeof value === 'string'
      ? [[key, value]]
      : typeof value === 'function'
        ? [[key, String((value as (...args: unknown[]) => unknown)(...argumentsOf(key)))]]
        : Object.entries(value as object).flatMap(([name, of]) => flat(`${key}.${name}`, of));
  const argumentsOf = (key: string) =>
    key.startsWith('letters.')
      ? [{ site: 'Werftschule', audience: 'Crew', address: 'https://werft.example/~letter/x' }]
      : key === 'openTo'
        ? [{ signedOut: true, audiences: [{ name: 'Crew' }], except: [{ name: 'Trainees' }] }]
        : /^(found|nearlyFound|part)$/.test(key)
          ? [2, 3]
          : ['Harbour', ''];
  return Object.entries(words).flatMap(([key, value]) => flat(key, value));
}

describe('the words of visitors’ pages', () => {
  it('are all there in each language, and no language has those of another', () => {
    const english = new Map(saidBy(ENGLISH));
    for (const language of WORD_LANGUAGES) {
      const said = saidBy(siteWords(language));
      expect(said.map(([key]) => key)).toEqual([...english.keys()]);
      for (const [key, words] of said) {
        expect(`${key}: ${words}`).not.toMatch(/undefined|\[object|: $/);
        if (language !== 'en' && words.length > 12) expect([key, words]).not.toEqual([key, english.get(key)]);
      }
    }
  });

  it('are those of the language of a region, and English where there are none', () => {
    expect(siteWords('de-AT').search).toBe('Suche');
    expect(siteWords('cy').search).toBe('Search');
  });
});

describe('a site in German', () => {
  const key = 'werft';
  let server: TestServer;
  afterAll(() => server.close());
  beforeAll(async () => {
    server = await startTestServer();
    const ines = await server.person('Ines');
    await ines.post('/api/sites', { key, name: 'Werftschule', language: 'de' });
    await ines.operations(
      key,
      { name: 'page.add', page: 'start', place: { parent: null }, title: { de: 'Start' } },
      { name: 'page.add', page: 'kurse', place: { parent: null }, title: { de: 'Kurse' } },
      { name: 'page.add', page: 'abend', place: { parent: 'kurse' }, title: { de: 'Abendkurse' } },
      { name: 'audience.add', audience: 'personal', title: 'Personal' },
    );
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });
  });

  it.each([
    ['/', ['Zum Text', 'Menü', 'Diese Website durchsuchen', 'Seiten unter Kurse', 'Anmelden']],
    ['/kurse', ['In diesem Bereich', 'Sie sind hier']],
    ['/kurs', ['Unter dieser Adresse gibt es keine Seite', 'Vielleicht suchen Sie', 'Zur Startseite']],
    ['/search?q=abendkurse', ['Suche', '1 Seite mit „abendkurse“:']],
    ['/sign-in', ['E-Mail-Adresse', 'Passwort vergessen?', 'Anmelden']],
    ['/~password', ['Ein neues Passwort', 'Link senden']],
    ['/~join/nichts', ['Dieser Link gilt nicht mehr']],
  ])('says %s in German alone', async (path, words) => {
    const { text } = await server.live(`/${key}${path}`);
    for (const said of words) expect(text).toContain(said);
    const page = load(text);
    page('script').remove();
    expect(page('html').attr('lang')).toBe('de');
    expect(page('body').text()).not.toMatch(/\b(the|page|search|sign|you|password|menu)\b/i);
  });

  it('writes its letters in German', async () => {
    const form = new URLSearchParams({ email: 'jory@home.example' });
    const answer = await fetch(`${server.liveOrigin}/${key}/~password`, {
      method: 'POST',
      body: form,
      headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
    });
    expect(answer.status).toBe(200);
    const ines = await server.person('Ines');
    const { mails } = (await ines.get('/api/outbox')).json as {
      mails: { to: string; subject: string; text: string }[];
    };
    const [letter] = mails.filter(({ to }) => to === 'jory@home.example');
    expect(letter!.subject).toBe('Ihr Konto bei Werftschule');
    expect(letter!.text).toContain('kein Konto');
  });
});
