import {
  type AuthenticationResponseJSON,
  type RegistrationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import type { Account } from '#contract/api.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { insertPasskey, notePasskeyUse, passkeyById, passkeyIdsOf } from './sign-in-ways-repository.ts';

export const MAX_PASSKEYS = 20;

/** The workbench as a browser sees it: passkeys belong to a host, and answers come from an origin. */
export interface Party {
  readonly host: string;
  readonly origin: string;
}

/** What a browser asks an authenticator for, to make a passkey of an account. @throws ProblemError `passkey-too-many` */
export async function askForNewPasskey(database: Database, { id, name, email }: Account, { host }: Party) {
  const known = await passkeyIdsOf(database, id);
  if (known.length >= MAX_PASSKEYS) throw new ProblemError('passkey-too-many', { limit: MAX_PASSKEYS });
  return generateRegistrationOptions({
    rpName: 'Spur',
    rpID: host,
    userID: new TextEncoder().encode(id),
    userName: email,
    userDisplayName: name,
    excludeCredentials: known.map((one) => ({ id: one })),
    // It signs in by itself, so it is kept by the authenticator, which makes sure who uses it.
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
}

/** Adds the passkey that was made. @throws ProblemError `passkey-refused` where the answer is not to that challenge, or the passkey is known already */
export async function addPasskey(
  database: Database,
  account: string,
  {
    response,
    challenge,
    party,
    name,
    at,
  }: {
    readonly response: unknown;
    readonly challenge: string;
    readonly party: Party;
    readonly name: string;
    readonly at: Date;
  },
): Promise<void> {
  const made = await refusing(() =>
    verifyRegistrationResponse({
      response: response as RegistrationResponseJSON,
      expectedChallenge: challenge,
      expectedOrigin: party.origin,
      expectedRPID: party.host,
    }),
  );
  if (!made.verified) throw new ProblemError('passkey-refused');
  const { credential } = made.registrationInfo;
  if (await passkeyById(database, credential.id)) throw new ProblemError('passkey-refused');
  await insertPasskey(database, {
    id: credential.id,
    account,
    name,
    public_key: Buffer.from(credential.publicKey),
    counter: credential.counter,
    transports: credential.transports ?? [],
    added_at: at,
  });
}

/** What a browser asks an authenticator for, to sign in; it offers the accounts that it has passkeys of. */
export const askForPasskey = ({ host }: Party) =>
  generateAuthenticationOptions({ rpID: host, userVerification: 'required' });

/** Whose passkey answered. @throws ProblemError `passkey-refused` */
export async function ownerOfAnswer(
  database: Database,
  {
    response,
    challenge,
    party,
    at,
  }: { readonly response: unknown; readonly challenge: string; readonly party: Party; readonly at: Date },
): Promise<string> {
  const given = response as AuthenticationResponseJSON;
  const kept = await passkeyById(database, given.id);
  if (!kept) throw new ProblemError('passkey-refused');
  const answer = await refusing(() =>
    verifyAuthenticationResponse({
      response: given,
      expectedChallenge: challenge,
      expectedOrigin: party.origin,
      expectedRPID: party.host,
      credential: { id: kept.id, publicKey: new Uint8Array(kept.public_key), counter: Number(kept.counter) },
    }),
  );
  if (!answer.verified) throw new ProblemError('passkey-refused');
  await notePasskeyUse(database, kept.id, answer.authenticationInfo.newCounter, at);
  return kept.account;
}

/** The library throws where an answer is not as it should be. */
async function refusing<Result>(verify: () => Promise<Result>): Promise<Result> {
  try {
    return await verify();
  } catch {
    throw new ProblemError('passkey-refused');
  }
}
