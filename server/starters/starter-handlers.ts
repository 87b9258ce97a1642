import { randomUUID } from 'node:crypto';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { branchOf, maybeNodeAt } from '#core/model/site.ts';
import { SHIPPED } from '#core/starters/shipped.ts';
import { isUsable, starterOf } from '#core/starters/starter.ts';
import type { Starter } from '#core/starters/starter-file.ts';
import type { StarterAnswer } from '#contract/starters.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { contentsOf } from '../sites/site-repository.ts';
import { countStarters, deleteStarter, insertStarter, keptStarters } from './starter-repository.ts';

const MAX_STARTERS = 500;

/** Starters: those that Spur ships, and those that were saved of sites or brought as files. */
export function makeStarterHandlers({
  database,
  cache,
  now,
}: Pick<Services, 'database' | 'cache' | 'now'>): Pick<
  Handlers,
  'listStarters' | 'bringStarter' | 'saveStarter' | 'deleteStarter'
> {
  const keep = async (starter: Starter, account: string): Promise<StarterAnswer> => {
    if (!isUsable(starter)) throw new ProblemError('starter-too-large');
    if ((await countStarters(database)) >= MAX_STARTERS)
      throw new ProblemError('starter-too-many', { limit: MAX_STARTERS });
    const id = randomUUID();
    await insertStarter(database, { id, file: starter }, account, now());
    return { id, isShipped: false, starter };
  };
  return {
    listStarters: async () => ({
      starters: [
        ...Object.entries(SHIPPED).map(([id, starter]) => ({ id, isShipped: true, starter })),
        ...(await keptStarters(database)).map(({ id, file }) => ({ id, isShipped: false, starter: file })),
      ],
    }),
    bringStarter: ({ body, account }) => keep(body.starter, account.id),
    saveStarter: async ({ request, body, account }) => {
      const key = siteOf(request);
      const { site } = await cache.current(key);
      if (body.page !== null && !maybeNodeAt(site, body.page))
        throw new ProblemError('page-unknown', { page: body.page });
      const ids = branchOf(site, body.page)
        .flatMap((id) => site.nodes.get(id)!.content ?? [])
        .concat(site.settings.labels.flatMap(({ pageOutline }) => pageOutline ?? []));
      const texts = new Map<ContentId, TextDocument>(
        (await contentsOf(database, key, ids)).map(({ id, document }) => [id, document]),
      );
      const starter = starterOf(site, body.page, body.name, body.description, (id) => texts.get(id));
      if (starter.pages.length === 0) throw new ProblemError('starter-empty');
      return keep(starter, account.id);
    },
    deleteStarter: async ({ request }) => {
      const named = { starter: String(request.params.starter).slice(0, 60) };
      const id = uuidOf(request.params.starter, 'starter-unknown', named);
      if (!(await deleteStarter(database, id))) throw new ProblemError('starter-unknown', named);
      return { ok: true };
    },
  };
}
