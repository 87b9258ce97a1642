import type { Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { inversesAfter } from './history-repository.ts';

/**
 * A site as it was at an earlier revision: the ways back of all edits since, taken on the site of now.
 * @throws ProblemError where the log does not have that revision.
 */
export async function siteAt(
  database: Database,
  { site, revision }: { site: Site; revision: number },
  asked: number,
): Promise<Site> {
  if (!Number.isInteger(asked) || asked < 0 || asked > revision)
    throw new ProblemError('revision-unknown', { revision: String(asked), latest: revision });
  if (asked === revision) return site;
  const back = applyOperations(site, (await inversesAfter(database, site.key, asked)).flat());
  if (!back.ok) throw new Error(`The log of '${site.key}' does not lead back to revision ${asked}: ${back.code}.`);
  return back.site;
}
