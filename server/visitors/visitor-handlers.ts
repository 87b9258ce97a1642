import { randomUUID } from 'node:crypto';
import type { AudienceId } from '#core/model/audience.ts';
import type { Site } from '#core/model/site.ts';
import type { VisitorAnswer } from '#contract/visitors.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { type Visitor, deleteVisitor, insertVisitor, updateVisitor, visitorsOf } from './visitor-repository.ts';

type Visitors = 'listVisitors' | 'makeVisitor' | 'setVisitor' | 'removeVisitor';

/** The accounts of a site's visitors, for its manager. */
export function makeVisitorHandlers({
  database,
  cache,
  visitorsSide,
  now,
}: Pick<Services, 'database' | 'cache' | 'visitorsSide' | 'now'>): Pick<Handlers, Visitors> {
  return {
    listVisitors: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      return { visitors: (await visitorsOf(database, key)).map(answerOf) };
    },
    makeVisitor: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      requireAudiences(site, body.audiences);
      const visitor = {
        id: randomUUID(),
        site: site.key,
        name: body.name,
        email: body.email,
        password_hash: await hashOfPassword(body.password),
        audiences: body.audiences,
        asked_for: [],
        is_suspended: false,
        made_at: now(),
      };
      if (!(await insertVisitor(database, visitor))) throw new ProblemError('visitor-exists', { email: body.email });
      return answerOf({ ...visitor, last_sign_in_at: null, directory_id: null });
    },
    setVisitor: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      requireAudiences(site, [...(body.audiences ?? []), ...(body.askedFor ?? [])]);
      const { name, audiences, askedFor, isSuspended } = body;
      const fields = {
        ...(name !== undefined && { name }),
        ...(audiences !== undefined && { audiences }),
        ...(askedFor !== undefined && { asked_for: askedFor }),
        ...(isSuspended !== undefined && { is_suspended: isSuspended }),
      };
      const id = uuidOf(request.params.visitor, 'visitor-unknown');
      if (Object.keys(fields).length > 0 && !(await updateVisitor(database, site.key, id, fields)))
        throw new ProblemError('visitor-unknown');
      await visitorsSide.hasTaken(site.key);
      return { ok: true };
    },
    removeVisitor: async ({ request }) => {
      const id = uuidOf(request.params.visitor, 'visitor-unknown');
      if (!(await deleteVisitor(database, siteOf(request), id))) throw new ProblemError('visitor-unknown');
      await visitorsSide.hasTaken(siteOf(request));
      return { ok: true };
    },
  };
}

/** @throws ProblemError where the site does not have one of the audiences. */
export function requireAudiences(site: Site, audiences: readonly AudienceId[]): void {
  const unknown = audiences.find((id) => !site.settings.audiences.some((one) => one.id === id));
  if (unknown !== undefined) throw new ProblemError('audience-unknown', { audience: unknown });
}

const answerOf = (visitor: Omit<Visitor, 'directory_audiences' | 'has_left'>): VisitorAnswer => ({
  id: visitor.id,
  name: visitor.name,
  email: visitor.email,
  audiences: visitor.audiences,
  askedFor: visitor.asked_for,
  isSuspended: visitor.is_suspended,
  isFromDirectory: visitor.directory_id !== null,
  lastSignInAt: visitor.last_sign_in_at?.toISOString() ?? null,
});
