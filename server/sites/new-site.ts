import { type SiteKey, toPageId } from '#core/model/ids.ts';
import { type Site, makeSite, newSettings } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { practicePages } from '#core/practice/practice-pages.ts';
import type { BodyOf } from '#contract/routes.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';
import { ProblemError } from '../problem.ts';

const RESERVED_KEYS: ReadonlySet<string> = new Set(['api', 'assets', 'sites', 'sign-in', 'welcome', 'problems']);
const UNIQUE_VIOLATION = '23505';

/** A new site: nothing but a page to practise on, with the texts of that. */
export function siteToBegin({ key, name, language }: BodyOf<'makeSite'>): {
  readonly site: Site;
  readonly contents: readonly StoredContent[];
} {
  let next = 0;
  const newId = () => toPageId(`practice${(next += 1)}`);
  const { operations, contents } = practicePages(language, { parent: null }, newId);
  const made = applyOperations(makeSite(key, newSettings(name, language), []), operations);
  if (!made.ok) throw new Error(`The practice page cannot be made: ${made.code}.`);
  return { site: made.site, contents: contents.map(acceptContent) };
}

/** Makes a site by what inserts it. @throws ProblemError `site-exists` where the key is taken, or is no site's; then nothing is made */
export async function asNewSite(key: SiteKey, insert: () => Promise<void>): Promise<void> {
  if (RESERVED_KEYS.has(key)) throw new ProblemError('site-exists', { site: key });
  try {
    await insert();
  } catch (fault) {
    const { code, constraint } = fault as { code?: string; constraint?: string };
    if (code === UNIQUE_VIOLATION && constraint === 'site_pkey') throw new ProblemError('site-exists', { site: key });
    throw fault;
  }
}
