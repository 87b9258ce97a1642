import type { Knex } from 'knex';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { Site } from '#core/model/site.ts';
import type { StoredContent } from '#server/contents/content-service.ts';
import { type Result, median, ms } from './measure.ts';

const ROUNDS = 15;
const WORDS_A_PAGE = 330;
const VOCABULARY = 6000;

/** The n-th word of the made-up language of the texts: low numbers are common ones. */
const wordAt = (number: number): string => {
  let word = '';
  for (let rest = number + 26 ** 2; rest > 0; rest = Math.floor(rest / 26))
    word += 'tanelorisukdevimpagho'.charAt(rest % 21) + 'aeiou'.charAt(rest % 5);
  return word;
};

/** Texts of some 2 kB for every page of a site, with words as unevenly spread as in a language. */
export function searchTexts(site: Site): StoredContent[] {
  let state = 20261125;
  const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
  return [...site.nodes.values()].flatMap(({ content }) => {
    if (content === null) return [];
    const words = Array.from({ length: WORDS_A_PAGE }, () => wordAt(Math.floor(VOCABULARY ** random()) - 1));
    return [
      {
        id: content,
        document: { type: 'doc' as const },
        html: `<p>${words.join(' ')}.</p>`,
        parts: null,
        files: [],
        shared: [],
        forms: [],
        boxes: [],
        written: [],
      },
    ];
  });
}

/**
 * The site's own search from request to page of results, beside PostgreSQL finding and ranking the same words in the same
 * table; and making a live site's search rows anew, beside making the bare index of the same words.
 */
export async function benchSearch(database: Knex, port: number, site: Site): Promise<Result[]> {
  const pages = liveSiteOf(site).nodes.count(({ type }) => type === 'page');
  const results: Result[] = [];
  for (const [name, asked, typed, aim] of [
    ['a rare word', wordAt(4200), wordAt(4200), 1.2],
    ['a common word', wordAt(12), wordAt(12), 1.2],
    ['a word with a typing mistake', wordAt(4200), wordAt(4200).slice(0, -1) + 'q', 1.5],
  ] as const) {
    const ours: number[] = [];
    const bare: number[] = [];
    for (let round = 0; round < ROUNDS + 3; round++) {
      const began = performance.now();
      const answer = await fetch(`http://127.0.0.1:${port}/${site.key}/search?q=${typed}`);
      const text = await answer.text();
      const between = performance.now();
      await database.raw(
        `SELECT page FROM search_document, to_tsquery('english', ?) AS asked WHERE site = ? AND words @@ asked
         ORDER BY ts_rank_cd(words, asked, 1) DESC LIMIT 10`,
        [asked, site.key],
      );
      const end = performance.now();
      if (!text.includes('<ol class="results"')) throw new Error(`The search found nothing for ${typed}.`);
      if (round < 3) continue;
      ours.push(between - began);
      bare.push(end - between);
    }
    results.push({
      what: `Search ${pages.toLocaleString('en')} pages for ${name}`,
      ours: ms(median(ours)),
      limit: `${ms(median(bare))}, PostgreSQL ranking ${asked === typed ? 'it' : 'the right word'}`,
      ratio: median(ours) / median(bare),
      aim: `≤ ${aim}`,
      isMet: median(ours) / median(bare) <= aim,
    });
  }
  const began = performance.now();
  await database.raw(`SELECT index_for_search(?, (SELECT array_agg(id) FROM live_node WHERE site = ?))`, [
    site.key,
    site.key,
  ]);
  const between = performance.now();
  await database.transaction(async (trx) => {
    await trx.raw(
      `CREATE TEMPORARY TABLE bare ON COMMIT DROP AS
       SELECT page, to_tsvector('english', title || ' ' || description || ' ' || body) AS words
       FROM search_document WHERE site = ?`,
      [site.key],
    );
    await trx.raw('CREATE INDEX ON bare USING gin (words)');
  });
  const end = performance.now();
  results.push({
    what: `The search rows of all of them, as a release of the whole site makes them`,
    ours: ms(between - began),
    limit: `${ms(end - between)}, the words and their index alone`,
    ratio: (between - began) / (end - between),
    aim: 'none set',
    isMet: true,
  });
  return results;
}
