import { randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** argon2id with 19 MiB, 2 passes, 1 lane: the smallest setting that OWASP's password storage sheet gives. */
const HASHING = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** Compared with where there is no such account, so that the answer takes as long as where there is one. */
const NOBODY = hash(randomBytes(16), HASHING);

/** A password or passphrase as it is kept. */
export const hashOfPassword = (password: string): Promise<string> => hash(password, HASHING);

/** Whether a password is the one that is kept; it takes as long where none is, and then it is not. */
export async function isPassword(kept: string | undefined, password: string): Promise<boolean> {
  const matches = await verify(kept ?? (await NOBODY), password);
  return kept !== undefined && matches;
}
