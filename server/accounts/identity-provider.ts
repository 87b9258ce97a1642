import * as client from 'openid-client';
import { ProblemError } from '../problem.ts';

/** How the provider of an organisation is reached, and what opens it. */
export interface ProviderAccess {
  /** What it is called at the sign-in: "Sign in with …". */
  readonly name: string;
  readonly issuer: string;
  readonly clientId: string;
  readonly secret: string;
}

/** What is kept in the session while somebody is at the provider. */
export interface Asked {
  readonly verifier: string;
  readonly state: string;
  readonly nonce: string;
}

/** Who somebody is, as the provider says. */
export interface Identity {
  readonly issuer: string;
  readonly subject: string;
  readonly email: string;
  /** Whether they signed in there with more than a password (`amr`, RFC 8176). */
  readonly hasSecondStep: boolean;
}

/**
 * Signing in through the provider of an organisation: OpenID Connect with the authorisation code, PKCE, state and nonce. What the provider
 * offers is read when it is first needed, and again after a failure.
 */
export class IdentityProvider {
  readonly name: string;
  readonly #access: ProviderAccess;
  #discovered: Promise<client.Configuration> | null = null;

  constructor(access: ProviderAccess) {
    this.name = access.name;
    this.#access = access;
  }

  /** Where the browser goes to sign in, and what is to be kept until it comes back. @throws ProblemError `provider-away` */
  async start(answerTo: string): Promise<{ readonly address: URL; readonly asked: Asked }> {
    const configuration = await this.#configuration();
    const asked = {
      verifier: client.randomPKCECodeVerifier(),
      state: client.randomState(),
      nonce: client.randomNonce(),
    };
    const address = client.buildAuthorizationUrl(configuration, {
      redirect_uri: answerTo,
      scope: 'openid email profile',
      code_challenge: await client.calculatePKCECodeChallenge(asked.verifier),
      code_challenge_method: 'S256',
      state: asked.state,
      nonce: asked.nonce,
    });
    return { address, asked };
  }

  /**
   * Who came back. @param address where the browser was sent to, with what the provider says in it
   * @throws ProblemError `provider-refused` where it does not answer what was asked, or has not made sure of the mail address
   */
  async finish(address: URL, { verifier, state, nonce }: Asked): Promise<Identity> {
    const configuration = await this.#configuration();
    try {
      const tokens = await client.authorizationCodeGrant(configuration, address, {
        pkceCodeVerifier: verifier,
        expectedState: state,
        expectedNonce: nonce,
        idTokenExpected: true,
      });
      const { sub, iss, amr } = tokens.claims()!;
      const { email, email_verified: isVerified } = await client.fetchUserInfo(configuration, tokens.access_token, sub);
      if (typeof email !== 'string' || isVerified !== true) throw new ProblemError('provider-refused');
      return { issuer: iss, subject: sub, email, hasSecondStep: Array.isArray(amr) && amr.includes('mfa') };
    } catch (fault) {
      if (fault instanceof ProblemError) throw fault;
      throw new ProblemError('provider-refused');
    }
  }

  #configuration(): Promise<client.Configuration> {
    const { issuer, clientId, secret } = this.#access;
    const url = new URL(issuer);
    // What is on this machine needs no encryption on the way.
    const execute = isLoopback(url) ? [client.allowInsecureRequests] : [];
    this.#discovered ??= client
      .discovery(url, clientId, undefined, client.ClientSecretPost(secret), { execute })
      .catch(() => {
        this.#discovered = null;
        throw new ProblemError('provider-away', { name: this.name });
      });
    return this.#discovered;
  }
}

const isLoopback = ({ protocol, hostname }: URL): boolean =>
  protocol === 'http:' && ['127.0.0.1', 'localhost', '[::1]'].includes(hostname);
