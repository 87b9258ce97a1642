import { generateKeyPairSync, randomBytes } from 'node:crypto';
import express, { type Express, type Request, type Response } from 'express';
import type { Provider } from 'oidc-provider';
import type { Database } from '../database/connect.ts';
import { markup } from '../live/html.ts';
import { standInPeople } from './directory-repository.ts';

/** What the workbench is to the stand-in. */
export const STAND_IN_CLIENT = { id: 'spur', secret: 'stand-in' } as const;
const ANSWER = '/api/session/provider/answer';

/**
 * A stand-in for an organisation's provider of identities (OpenID Connect): it shows the people of the stand-in directory, and believes whoever
 * says to be one of them. It serves workbenches on loopback alone.
 */
export function mountProvider(app: Express, database: Database): void {
  const providers = new Map<string, Promise<Provider>>();
  const at = ({ headers }: Request): Promise<Provider> => {
    const issuer = `http://${headers.host ?? '127.0.0.1'}/oidc`;
    let provider = providers.get(issuer);
    if (!provider) providers.set(issuer, (provider = makeProvider(issuer, database)));
    return provider;
  };
  const choose = express.Router();
  choose.get('/:uid', async (request, response) => {
    const people = await standInPeople(database);
    response
      .set({ 'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'", 'Cache-Control': 'no-store' })
      .type('html')
      .send(
        choicePage(
          String(request.params.uid),
          people.filter(({ is_active: isActive }) => isActive).map(({ name, email }) => ({ name, email })),
        ),
      );
  });
  choose.post(
    '/:uid',
    express.urlencoded({ extended: false, limit: '20kb' }),
    async (request: Request, response: Response) => {
      const { email } = (request.body ?? {}) as { email?: string };
      await (
        await at(request)
      ).interactionFinished(request, response, { login: { accountId: String(email ?? '').trim() } });
    },
  );
  app.use('/oidc-choice', choose);
  app.use('/oidc', async (request, response) => (await at(request)).callback()(request, response));
}

async function makeProvider(issuer: string, database: Database): Promise<Provider> {
  // Only where somebody signs in by it: it is large.
  const { Provider: OidcProvider, interactionPolicy } = await import('oidc-provider');
  const policy = interactionPolicy.base();
  // Programs on somebody's own machine would ask for consent each time; whoever chooses somebody here has given it.
  policy.get('consent')!.checks.remove('native_client_prompt');
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
  return new OidcProvider(issuer, {
    clients: [
      {
        client_id: STAND_IN_CLIENT.id,
        client_secret: STAND_IN_CLIENT.secret,
        // On loopback any port will do (RFC 8252, 7.3).
        application_type: 'native',
        redirect_uris: [`http://127.0.0.1${ANSWER}`, `http://localhost${ANSWER}`],
        token_endpoint_auth_method: 'client_secret_post',
      },
    ],
    jwks: { keys: [{ ...privateKey.export({ format: 'jwk' }), use: 'sig', alg: 'RS256' }] },
    cookies: { keys: [randomBytes(24).toString('base64url')] },
    claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name'] },
    features: { devInteractions: { enabled: false } },
    interactions: { policy, url: (_, { uid }) => `/oidc-choice/${uid}` },
    ttl: { Session: 60, Interaction: 600, Grant: 600, AccessToken: 600, IdToken: 600, AuthorizationCode: 60 },
    findAccount: async (_, email) => {
      const person = (await standInPeople(database)).find((one) => one.email.toLowerCase() === email.toLowerCase());
      return {
        accountId: email,
        claims: () => ({ sub: email, email, email_verified: true, name: person?.name ?? email }),
      };
    },
    // Whoever chooses somebody agrees to what the workbench is told of them.
    loadExistingGrant: async ({ oidc }) => {
      const grant = new oidc.provider.Grant({
        clientId: oidc.client!.clientId,
        accountId: oidc.session!.accountId!,
      });
      grant.addOIDCScope('openid email profile');
      await grant.save();
      return grant;
    },
  });
}

const choicePage = (uid: string, people: readonly { readonly name: string; readonly email: string }[]): string =>
  markup`<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Who are you? (a stand-in)</title><style>
body { font: 15px/1.5 system-ui, sans-serif; margin: 2rem auto; max-width: 32rem; padding: 0 1rem; color: #1d2b33; background: #f7f5f0 }
button, input { font: inherit; padding: .3rem .6rem } li { margin: .3rem 0; list-style: none } ul { padding: 0 }
</style></head><body><h1>Who are you?</h1>
<p>A stand-in for the sign-in of an organisation. It believes whatever you say.</p>
<form method="post" action="/oidc-choice/${uid}"><label>Mail address <input type="email" name="email" required></label> <button>Go on</button></form>
<ul>${people.map(({ name, email }) => markup`<li><form method="post" action="/oidc-choice/${uid}"><input type="hidden" name="email" value="${email}"><button>${name}</button> ${email}</form></li>`)}</ul></body></html>`
    .text;
