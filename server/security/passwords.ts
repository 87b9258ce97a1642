import { randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** argon2id with 19 MiB, 2 passes, 1 lane: the smallest setting that OWASP's password storage sheet gives. */
const HASHING = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
const { memoryCost, timeCost, parallelism } = HASHING;
const OWN_HASH = new RegExp(
  String.raw`^\$argon2id\$v=19\$m=${memoryCost},t=${timeCost},p=${parallelism}\$[A-Za-z0-9+/]{22}\$[A-Za-z0-9+/]{43}$`,
);
/** Whether a hash was made as this program makes them: others would let whoever brings them say how much a check costs. */
export const isOwnHash = (kept: string): boolean => OWN_HASH.test(kept);

/** Compared with where there is no such account, so that the answer takes as long as where there is one. */
const NOBODY = hash(randomBytes(16), HASHING);

/** A password or passphrase as it is kept. */
export const hashOfPassword = (password: string): Promise<string> => hash(password, HASHING);

/** Whether a password is the one that is kept; it takes as long where none is, and then it is not. */
export async function isPassword(kept: string | undefined, password: string): Promise<boolean> {
  const isKnown = kept !== undefined && isOwnHash(kept);
  const matches = await verify(isKnown ? kept : await NOBODY, password);
  return isKnown && matches;
}
