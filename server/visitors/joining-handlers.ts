import { randomBytes, randomUUID } from 'node:crypto';
import { addDays } from 'date-fns';
import type { JoiningLinkAnswer } from '#contract/visitors.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { type JoiningLink, deleteJoiningLink, insertJoiningLink, joiningLinksOf } from './joining-repository.ts';
import { Letters } from './letters.ts';
import { requireAudiences } from './visitor-handlers.ts';
import { insertVisitor, updateVisitor, visitorByEmail } from './visitor-repository.ts';

type Joining = 'bringVisitors' | 'listJoiningLinks' | 'makeJoiningLink' | 'removeJoiningLink';

/** How visitors come to have an account: by a list that the manager brings, or by a link for an audience. */
export function makeJoiningHandlers({
  database,
  cache,
  mailer,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'cache' | 'mailer' | 'liveOrigin' | 'now'>): Pick<Handlers, Joining> {
  const letters = new Letters(database, mailer, now);
  const answerOf = (link: JoiningLink): JoiningLinkAnswer => ({
    id: link.id,
    audience: link.audience,
    address: `${liveOrigin}/${link.site}/~join/${link.token}`,
    needsApproval: link.needs_approval,
    expiresAt: link.expires_at.toISOString(),
    mostUses: link.most_uses,
    uses: link.uses,
    madeBy: link.made_by,
  });
  return {
    bringVisitors: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      requireAudiences(
        site,
        body.visitors.flatMap(({ audiences }) => audiences),
      );
      // Nobody knows it: a password is chosen by the letter.
      const password_hash = await hashOfPassword(randomBytes(24).toString('base64url'));
      const place = { key: site.key, name: site.settings.name, address: `${liveOrigin}/${site.key}` };
      return database.transaction(async (trx) => {
        const counts = { made: 0, changed: 0 };
        for (const { name, email, audiences } of body.visitors) {
          const before = await visitorByEmail(trx, site.key, email);
          if (before) {
            const all = [...new Set([...before.audiences, ...audiences])];
            if (all.length === before.audiences.length) continue;
            await updateVisitor(trx, site.key, before.id, { audiences: all });
            counts.changed++;
            continue;
          }
          const visitor = { id: randomUUID(), site: site.key, name, email, password_hash, audiences };
          await insertVisitor(trx, { ...visitor, is_suspended: false, made_at: now() });
          await letters.welcome(trx, place, email);
          counts.made++;
        }
        return counts;
      });
    },
    listJoiningLinks: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      return { links: (await joiningLinksOf(database, key)).map(answerOf) };
    },
    makeJoiningLink: async ({ request, body, account }) => {
      const { site } = await cache.current(siteOf(request));
      requireAudiences(site, [body.audience]);
      const made_at = now();
      const link: JoiningLink = {
        id: randomUUID(),
        site: site.key,
        audience: body.audience,
        token: randomBytes(24).toString('base64url'),
        needs_approval: body.needsApproval,
        expires_at: addDays(made_at, body.days),
        most_uses: body.mostUses,
        uses: 0,
        made_by: account.name,
        made_at,
      };
      await insertJoiningLink(database, link);
      return answerOf(link);
    },
    removeJoiningLink: async ({ request }) => {
      const id = uuidOf(request.params.link, 'joining-link-unknown');
      if (!(await deleteJoiningLink(database, siteOf(request), id))) throw new ProblemError('joining-link-unknown');
      return { ok: true };
    },
  };
}
