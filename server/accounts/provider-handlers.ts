import type { Request } from 'express';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import type { Handlers } from '../routing.ts';
import { accountByEmail, accountById } from './account-repository.ts';
import type { Asked } from './identity-provider.ts';
import { accountOfIdentity, putIdentity } from './identity-repository.ts';
import { ANSWERED_WITHIN_MS, startSession } from './start-session.ts';

const ANSWER = '/api/session/provider/answer';

/** Signing in through the provider of the organisation. The browser goes there and comes back, so these answer with where it goes next. */
export function makeProviderHandlers(
  services: Pick<Services, 'database' | 'identityProvider' | 'now' | 'ownOrigin'>,
): Pick<Handlers, 'startProvider' | 'finishProvider'> {
  const { database, identityProvider, now, ownOrigin } = services;
  const originOf = (request: Request): string => ownOrigin ?? `http://${request.get('host') ?? ''}`;

  /** The account of whoever came back: known from before, or by the mail address that the provider has made sure of. */
  const accountOf = async (request: Request) => {
    const { provider } = request.session;
    delete request.session.provider;
    if (!identityProvider || !provider || provider.until < now().getTime()) throw new ProblemError('provider-refused');
    const address = new URL(request.originalUrl, originOf(request));
    const { issuer, subject, email, hasSecondStep } = await identityProvider.finish(address, provider.asked);
    const known = await accountOfIdentity(database, issuer, subject);
    const account = known ? await accountById(database, known) : await accountByEmail(database, email);
    if (!account) throw new ProblemError('provider-unknown-person', { email });
    await putIdentity(database, { issuer, subject, account: account.id, since: now() });
    return { account, hasSecondStep };
  };

  return {
    startProvider: async ({ request, response }) => {
      if (!identityProvider) throw new ProblemError('provider-none');
      const { address, asked } = await identityProvider.start(originOf(request) + ANSWER);
      request.session.provider = { asked, until: now().getTime() + ANSWERED_WITHIN_MS };
      response.redirect(303, address.href);
    },
    finishProvider: async ({ request, response }) => {
      try {
        const { account, hasSecondStep } = await accountOf(request);
        await startSession(services, request, account, hasSecondStep);
        response.redirect(303, '/sites');
      } catch (fault) {
        if (!(fault instanceof ProblemError)) throw fault;
        response.redirect(303, `/sign-in?refused=${fault.code}`);
      }
    },
  };
}

export type AskedOfProvider = { readonly asked: Asked; readonly until: number };
