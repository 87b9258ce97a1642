import { audienceNames } from '#core/derive/reason-words.ts';
import { EVERYONE } from '#core/model/audience.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { visitorsOf } from './visitor-repository.ts';
import { insertWalk } from './walk-repository.ts';

const LIVES_MS = 2 * 3600 * 1000;

/** Starts walks: the site as an audience or a person has it. */
export function makeWalkHandlers({
  database,
  cache,
  people,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'cache' | 'people' | 'liveOrigin' | 'now'>): Pick<Handlers, 'startWalk'> {
  return {
    startWalk: async ({ request, body, account }) => {
      // Whoever may only read is not given what a passphrase guards.
      if (body.hasPassphrases) await people.require(siteOf(request), account, 'access', null);
      const { site } = await cache.current(siteOf(request));
      const { who } = body;
      const person =
        'visitor' in who ? (await visitorsOf(database, site.key)).find(({ id }) => id === who.visitor) : null;
      if (person === undefined) throw new ProblemError('visitor-unknown');
      const audiences = 'visitor' in who ? person!.audiences : who.audiences;
      const unknown = audiences.find(
        (id) => id !== EVERYONE && !site.settings.audiences.some((audience) => audience.id === id),
      );
      if (unknown !== undefined) throw new ProblemError('audience-unknown', { audience: unknown });
      const at = now();
      const expiresAt = new Date(at.getTime() + LIVES_MS);
      const words = person?.name ?? (audienceNames(site, audiences) || 'Everyone');
      const walk = {
        site: site.key,
        isDraft: body.isDraft,
        release: body.release,
        who: words,
        audiences,
        hasPassphrases: body.hasPassphrases,
        at: body.at === null ? null : Date.parse(body.at),
        look: body.look,
        screen: body.screen,
        // Changes are taken from the workbench's own pages only, so Origin is where the frame will stand.
        origin: request.get('origin')!,
      };
      const begun = { walk, session: request.sessionID, visitor: person?.id ?? null, expiresAt };
      const token = await insertWalk(database, begun, at);
      return {
        address: `${liveOrigin}/${site.key}/~walk/${token}/`,
        who: words,
        expiresAt: expiresAt.toISOString(),
      };
    },
  };
}
