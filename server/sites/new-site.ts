import type { SiteKey } from '#core/model/ids.ts';
import { ProblemError } from '../problem.ts';

const RESERVED_KEYS: ReadonlySet<string> = new Set(['api', 'assets', 'sites', 'sign-in', 'welcome', 'problems']);
const UNIQUE_VIOLATION = '23505';

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
