import { setImmediate } from 'node:timers/promises';
import { derivedOf } from '#core/derive/derived.ts';
import { contentIdOf } from '#core/model/content.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { type Replaced, type Replacing, replaceWords } from '#core/sections/replace-words.ts';
import type { Database } from '../database/connect.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { contentsOf } from '../sites/site-repository.ts';

/** So many texts are looked through before others have their turn. */
const AT_ONCE = 200;
/** While others edit the site it is tried anew, so often. */
const TRIES = 5;

interface Changed extends Replaced {
  readonly page: PageId;
}

/** Finds words in all texts of a site, and replaces them in those that are chosen, as one edit. */
export function makeReplacingHandlers({
  database,
  cache,
  edits,
}: Pick<Services, 'database' | 'cache' | 'edits'>): Pick<Handlers, 'findWords' | 'replaceWords'> {
  return {
    findWords: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      const found = await changedTexts(database, site, body, standing(site));
      return {
        pages: found.map(({ page, count, places }) => ({ page, count, places: [...places] })),
      };
    },
    replaceWords: async ({ request, body, account }) => {
      const key = siteOf(request);
      for (let tries = 1; ; tries++) {
        const { site, revision } = await cache.current(key);
        const chosen = new Set(body.pages);
        const changed = await changedTexts(
          database,
          site,
          body,
          standing(site).filter(({ page }) => chosen.has(page)),
        );
        const told = { pages: changed.length, places: changed.reduce((sum, { count }) => sum + count, 0) };
        // Said again by somebody who had no answer, there is nothing left to replace.
        if (changed.length === 0) return told;
        const texts = changed.map(({ page, document }) => ({ page, id: contentIdOf(document), document }));
        try {
          await edits.apply(key, account, {
            revision,
            request: body.request,
            operations: texts.map(({ page, id }) => ({ name: 'page.set', page, fields: { content: id } })),
            contents: [...new Map(texts.map(({ id, document }) => [id, { id, document }])).values()] as never,
          });
          return told;
        } catch (fault) {
          if (!(fault instanceof ProblemError) || fault.code !== 'stale-revision' || tries === TRIES) throw fault;
        }
      }
    },
  };
}

/** The pages of the tree that have a text, in tree order. */
const standing = (site: Site): { page: PageId; content: ContentId }[] =>
  derivedOf(site).outline.nodes.flatMap(({ id, content }) => (content === null ? [] : [{ page: id, content }]));

async function changedTexts(
  database: Database,
  site: Site,
  replacing: Replacing,
  pages: readonly { page: PageId; content: ContentId }[],
): Promise<Changed[]> {
  const changed: Changed[] = [];
  for (let from = 0; from < pages.length; from += AT_ONCE) {
    const some = pages.slice(from, from + AT_ONCE);
    const texts = new Map(
      (await contentsOf(database, site.key, [...new Set(some.map(({ content }) => content))])).map((one) => [
        one.id,
        one.document,
      ]),
    );
    for (const { page, content } of some) {
      const before = texts.get(content);
      if (!before) continue;
      const replaced = replaceWords(before, replacing);
      if (replaced.count > 0) changed.push({ page, ...replaced });
    }
    await setImmediate();
  }
  return changed;
}
