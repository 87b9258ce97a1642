import { randomBytes, randomUUID } from 'node:crypto';
import { addDays } from 'date-fns';
import { type ListedVisitor, readVisitorsCsv } from '#core/formats/visitors-csv.ts';
import { type JoiningLinkAnswer, MAX_BROUGHT_VISITORS } from '#contract/visitors.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { type JoiningLink, deleteJoiningLink, insertJoiningLink, joiningLinksOf } from './joining-repository.ts';
import { Letters } from './letters.ts';
import { requireAudiences } from './visitor-handlers.ts';
import { insertVisitor, updateVisitor, visitorsOf } from './visitor-repository.ts';

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
      const { visitors, faults } = readVisitorsCsv(body.text, site.settings.audiences);
      if (visitors.length > MAX_BROUGHT_VISITORS)
        throw new ProblemError('visitors-too-many', { count: visitors.length, limit: MAX_BROUGHT_VISITORS });
      const known = new Map((await visitorsOf(database, site.key)).map((one) => [one.email.toLowerCase(), one]));
      const made = visitors.filter(({ email }) => !known.has(email.toLowerCase()));
      const changed = visitors.filter(({ email, audiences }) => {
        const before = known.get(email.toLowerCase());
        return before !== undefined && audiences.some((id) => !before.audiences.includes(id));
      });
      if (body.apply) {
        // Nobody knows it: a password is chosen by the letter.
        const password_hash = await hashOfPassword(randomBytes(24).toString('base64url'));
        const { name: siteName, language } = site.settings;
        const place = { key: site.key, name: siteName, language, address: `${liveOrigin}/${site.key}` };
        await database.transaction(async (trx) => {
          for (const { name, email, audiences } of made) {
            const visitor = { id: randomUUID(), site: site.key, name, email, password_hash, audiences: [...audiences] };
            await insertVisitor(trx, { ...visitor, is_suspended: false, made_at: now() });
            await letters.welcome(trx, place, email);
          }
          for (const { email, audiences } of changed) {
            const { id, audiences: before } = known.get(email.toLowerCase())!;
            await updateVisitor(trx, site.key, id, { audiences: [...new Set([...before, ...audiences])] });
          }
        });
      }
      const nameAndEmail = ({ name, email }: ListedVisitor) => ({ name, email });
      return { made: made.map(nameAndEmail), changed: changed.map(nameAndEmail), faults: [...faults] };
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
