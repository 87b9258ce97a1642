import type { Request } from 'express';
import type { Account, SessionAnswer } from '#contract/api.ts';
import type { SignInWays } from '#contract/people.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import type { Handlers } from '../routing.ts';
import { isPassword } from '../security/passwords.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import { accountByEmail, accountById } from './account-repository.ts';
import { authenticate } from './account-service.ts';
import { newSecret, startCodes, takeCode } from './one-time-codes.ts';
import { type Party, addPasskey, askForNewPasskey, askForPasskey, ownerOfAnswer } from './passkeys.ts';
import { SESSION_COOKIE } from './remembered-sessions.ts';
import { deleteCodes, deletePasskey, signInWaysOf } from './sign-in-ways-repository.ts';
import { ANSWERED_WITHIN_MS, placeOf, startSession, waitForCode } from './start-session.ts';
import { tellOwner } from './tell-owner.ts';

type Names =
  | 'showSession'
  | 'signIn'
  | 'giveCode'
  | 'askForPasskey'
  | 'signInByPasskey'
  | 'signOut'
  | 'showSignInWays'
  | 'beginCodes'
  | 'confirmCodes'
  | 'endCodes'
  | 'beginPasskey'
  | 'addPasskey'
  | 'removePasskey';

/** Signing in and out, by password and one-time code or by passkey; and setting these up. */
export function makeSignInHandlers(
  services: Pick<Services, 'database' | 'attempts' | 'mailer' | 'identityProvider' | 'origin' | 'liveOrigin' | 'now'>,
): Pick<Handlers, Names> {
  const { database, attempts, liveOrigin, now } = services;
  const sessionOf = (account: Account | undefined, wantsCode = false): SessionAnswer => ({
    account: account ?? null,
    wantsCode,
    provider: services.identityProvider?.name ?? null,
    liveOrigin,
  });

  /** Notes a failed attempt on an account, and goes on failing. */
  const noting = async (request: Request, account: Pick<Account, 'id' | 'name'> | undefined, fault: unknown) => {
    // Of addresses that nobody has nothing is kept: people type their passwords into that field by mistake.
    if (account && fault instanceof ProblemError && fault.code !== 'too-many-attempts')
      await noteSecurity(database, { at: now(), event: 'sign-in-failed', account, place: placeOf(request) });
    throw fault;
  };

  /** @throws ProblemError `password-wrong` */
  const requirePassword = (request: Request, account: Account, password: string): Promise<void> =>
    attempts.guard({ place: request.ip, account: account.email }, async () => {
      const kept = await accountById(database, account.id);
      if (!(await isPassword(kept?.passwordHash ?? undefined, password))) throw new ProblemError('password-wrong');
    });

  const ask = (request: Request, kind: 'challenge' | 'secret', text: string): void => {
    request.session.asked = { kind, text, until: now().getTime() + ANSWERED_WITHIN_MS };
  };
  /** What was asked for in this session a moment ago. @throws ProblemError */
  const askedFor = (request: Request, kind: 'challenge' | 'secret'): string => {
    const { asked } = request.session;
    if (asked?.kind !== kind || asked.until < now().getTime())
      throw new ProblemError(kind === 'secret' ? 'codes-not-begun' : 'passkey-refused');
    return asked.text;
  };
  /** The same, which is used up by it. @throws ProblemError `passkey-refused` */
  const takeChallenge = (request: Request): string => {
    const challenge = askedFor(request, 'challenge');
    delete request.session.asked;
    return challenge;
  };

  /** How somebody signs in from now on. Whoever has just proved a second step has it in this session; without any, nobody has. */
  const waysAfter = async (request: Request, account: Account, isProved: boolean): Promise<SignInWays> => {
    const ways = await signInWaysOf(database, account.id);
    const isThere = ways.codesSince !== null || ways.passkeys.length > 0;
    request.session.account = { ...account, hasSecondStep: isThere && (isProved || account.hasSecondStep) };
    return ways;
  };

  return {
    showSession: ({ request }) => sessionOf(request.session.account, request.session.waiting !== undefined),
    signIn: async ({ request, body }) => {
      const account = await attempts
        .guard({ place: request.ip, account: body.email }, () => authenticate(database, body.email, body.password))
        .catch(async (fault: unknown) => noting(request, await accountByEmail(database, body.email), fault));
      if (await waitForCode(services, request, account.id)) return sessionOf(undefined, true);
      return sessionOf(await startSession(services, request, account, false));
    },
    giveCode: async ({ request, body }) => {
      const { waiting } = request.session;
      const account = waiting && (await accountById(database, waiting.account));
      if (!account || waiting.until < now().getTime()) throw new ProblemError('code-not-asked-for');
      await attempts
        .guard({ place: request.ip, account: `code ${account.email}` }, () =>
          takeCode(database, account.id, body.code, now()),
        )
        .catch((fault: unknown) => noting(request, account, fault));
      return sessionOf(await startSession(services, request, account, true));
    },
    askForPasskey: async ({ request }) => {
      const options = await askForPasskey(partyOf(request));
      ask(request, 'challenge', options.challenge);
      return options;
    },
    signInByPasskey: async ({ request, body: { response } }) => {
      const challenge = takeChallenge(request);
      const owner = await attempts.guard({ place: request.ip, account: `passkey ${response.id}` }, () =>
        ownerOfAnswer(database, { response, challenge, party: partyOf(request), at: now() }),
      );
      const account = await accountById(database, owner);
      if (!account) throw new ProblemError('passkey-refused');
      return sessionOf(await startSession(services, request, account, true));
    },
    signOut: async ({ request, response }) => {
      await new Promise<void>((resolve, reject) =>
        request.session.destroy((fault) => (fault ? reject(fault) : resolve())),
      );
      response.clearCookie(SESSION_COOKIE);
      return sessionOf(undefined);
    },

    showSignInWays: ({ account }) => signInWaysOf(database, account.id),
    beginCodes: async ({ request, body, account }) => {
      await requirePassword(request, account, body.password);
      const begun = newSecret(account.email);
      ask(request, 'secret', begun.secret);
      return begun;
    },
    confirmCodes: async ({ request, body, account }) => {
      const secret = askedFor(request, 'secret');
      const recoveryCodes = await attempts.guard({ place: request.ip, account: `code ${account.email}` }, () =>
        startCodes(database, account.id, { secret, code: body.code.replace(/\s/g, ''), at: now() }),
      );
      delete request.session.asked;
      await tellOwner(services, request, account, 'second-step-set');
      await waysAfter(request, account, true);
      return { recoveryCodes };
    },
    endCodes: async ({ request, body, account }) => {
      await requirePassword(request, account, body.password);
      if ((await deleteCodes(database, account.id)) > 0)
        await tellOwner(services, request, account, 'second-step-removed');
      return waysAfter(request, account, false);
    },
    beginPasskey: async ({ request, body, account }) => {
      await requirePassword(request, account, body.password);
      const options = await askForNewPasskey(database, account, partyOf(request));
      ask(request, 'challenge', options.challenge);
      return options;
    },
    addPasskey: async ({ request, body: { name, response }, account }) => {
      const challenge = takeChallenge(request);
      await addPasskey(database, account.id, { response, challenge, party: partyOf(request), name, at: now() });
      await tellOwner(services, request, account, 'passkey-added', name);
      return waysAfter(request, account, true);
    },
    removePasskey: async ({ request, body, account }) => {
      await requirePassword(request, account, body.password);
      const removed = await deletePasskey(database, account.id, String(request.params.passkey));
      if (removed === 0) throw new ProblemError('passkey-unknown');
      await tellOwner(services, request, account, 'passkey-removed');
      return waysAfter(request, account, false);
    },
  };
}

/** The workbench as the browser sees it that asks; where the request comes from was looked at before it was let in. */
const partyOf = (request: Request): Party => ({ host: request.hostname, origin: request.get('origin') ?? '' });
