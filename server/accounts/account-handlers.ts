import { createHash } from 'node:crypto';
import type { Request } from 'express';
import type { Account, SessionAnswer } from '#contract/api.ts';
import type { OwnSession } from '#contract/people.ts';
import { ProblemError } from '../problem.ts';
import { countIn } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { hashOfPassword, isPassword } from '../security/passwords.ts';
import { noteSecurity, securityLog } from '../security/security-log-repository.ts';
import type { Services } from '../handlers.ts';
import { type AccountLinks } from './account-links.ts';
import { accountById, setName, setPassword } from './account-repository.ts';
import { makeFirstAccount } from './account-service.ts';
import { requireGoodPassword } from './password-rules.ts';
import { sessionsOf } from './session-repository.ts';
import { placeOf, startSession, waitForCode } from './start-session.ts';
import { tellOwner } from './tell-owner.ts';

type Names =
  | 'makeFirstAccount'
  | 'openAccountLink'
  | 'useAccountLink'
  | 'askForPassword'
  | 'setOwnAccount'
  | 'changePassword'
  | 'listOwnSessions'
  | 'endOwnSession'
  | 'showOwnSecurityLog';

/** What somebody does with their own account, and the ways to it: the first account, an invitation, a new password. */
export function makeAccountHandlers(
  services: Pick<Services, 'database' | 'sessions' | 'attempts' | 'mailer' | 'origin' | 'liveOrigin' | 'now'>,
  links: AccountLinks,
): Pick<Handlers, Names> {
  const { database, sessions, attempts, liveOrigin, now } = services;
  const sessionOf = (account: Account): SessionAnswer => ({ account, wantsCode: false, provider: null, liveOrigin });

  /** Attempts are counted for each link, by a hash: nobody shuts others out by guessing. */
  const guardLink = <Result>(request: Request, token: string, work: () => Promise<Result>): Promise<Result> =>
    attempts.guard({ place: request.ip, account: `link ${nameOf(token)}` }, work);

  const end = (id: string): Promise<void> =>
    new Promise((resolve, reject) => sessions.destroy(id, (fault) => (fault ? reject(fault) : resolve())));

  const listOf = async (request: Request, account: Account): Promise<{ sessions: OwnSession[] }> => ({
    sessions: (await sessionsOf(database, account.id, now())).map(({ id, since, browser }) => ({
      id: nameOf(id),
      since,
      browser,
      isThis: id === request.sessionID,
    })),
  });

  const endOthers = async (request: Request, account: Account): Promise<void> => {
    for (const { id } of await sessionsOf(database, account.id, now())) if (id !== request.sessionID) await end(id);
  };

  return {
    makeFirstAccount: async ({ request, body }) => {
      const account = await attempts.guard({ place: request.ip, account: 'first-account', isShared: true }, () => {
        requireGoodPassword(body.password, [body.name, body.email]);
        return makeFirstAccount(database, now(), body);
      });
      return sessionOf(await startSession(services, request, account, false));
    },

    openAccountLink: ({ request, body }) => guardLink(request, body.token, () => links.open(body.token)),
    useAccountLink: async ({ request, body }) => {
      const account = await guardLink(request, body.token, () => links.use(body.token, body, placeOf(request)));
      // Whoever has a session by the former password is out.
      for (const { id } of await sessionsOf(database, account.id, now())) await end(id);
      // The mailbox stands for the password, and for nothing more.
      if (await waitForCode(services, request, account.id))
        return { account: null, wantsCode: true, provider: null, liveOrigin };
      return sessionOf(await startSession(services, request, account, false));
    },
    askForPassword: async ({ request, body }) => {
      await attempts.guard({ place: request.ip, account: `letter ${body.email}` }, () =>
        links.askForPassword(body.email, placeOf(request)),
      );
      return { ok: true };
    },

    setOwnAccount: async ({ request, body, account }) => {
      await setName(database, account.id, body.name);
      request.session.account = { ...account, name: body.name };
      return sessionOf(request.session.account);
    },
    changePassword: async ({ request, body, account }) => {
      const kept = await accountById(database, account.id);
      await attempts.guard({ place: request.ip, account: account.email }, async () => {
        if (!(await isPassword(kept?.passwordHash ?? undefined, body.current)))
          throw new ProblemError('password-wrong');
      });
      requireGoodPassword(body.password, [account.name, account.email]);
      await setPassword(database, account.id, await hashOfPassword(body.password));
      await tellOwner(services, request, account, 'password-changed');
      await endOthers(request, account);
      return { ok: true };
    },
    listOwnSessions: ({ request, account }) => listOf(request, account),
    endOwnSession: async ({ request, account }) => {
      const asked = String(request.params.session);
      if (asked === 'others') await endOthers(request, account);
      else {
        const found = (await sessionsOf(database, account.id, now())).find(({ id }) => nameOf(id) === asked);
        if (!found || found.id === request.sessionID) throw new ProblemError('session-unknown');
        await end(found.id);
      }
      await noteSecurity(database, { at: now(), event: 'session-ended', account, place: placeOf(request) });
      return listOf(request, account);
    },
    showOwnSecurityLog: ({ request, account }) =>
      securityLog(database, { account: account.id }, countIn(request.query.skip) ?? 0),
  };
}

/** A session by a name that opens nothing. */
const nameOf = (id: string): string => createHash('sha256').update(id).digest('base64url').slice(0, 22);
