import { createHash, randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { codesOf, putCodes, useCode, useRecoveryCode } from './sign-in-ways-repository.ts';

/** RFC 6238 with the values that all authenticators take. */
const SHAPE = { algorithm: 'SHA1', digits: 6, period: 30 } as const;
/** A code is taken one step early or late: clocks differ. */
const WINDOW = 1;
const RECOVERY_CODES = 10;
/** 50 bits each, in two groups of five letters and digits. */
const RECOVERY_BYTES = 7;

/** A new secret for an authenticator, as a text and as an address to be read from a picture. */
export function newSecret(email: string): { secret: string; address: string } {
  const secret = new Secret({ size: 20 });
  const totp = new TOTP({ ...SHAPE, issuer: 'Spur', label: email, secret });
  return { secret: secret.base32, address: totp.toString() };
}

/** Which step of the clock a code belongs to; null where it is none of those that are taken at a moment. */
export function stepOf(secret: string, code: string, at: Date): number | null {
  if (!/^\d{6}$/.test(code)) return null;
  const timestamp = at.getTime();
  const delta = new TOTP({ ...SHAPE, secret: Secret.fromBase32(secret) }).validate({
    token: code,
    window: WINDOW,
    timestamp,
  });
  return delta === null ? null : TOTP.counter({ period: SHAPE.period, timestamp }) + delta;
}

/** Asks for one-time codes from now on. Gives the recovery codes, of which only hashes are kept. @throws ProblemError `code-wrong` */
export async function startCodes(
  database: Database,
  account: string,
  { secret, code, at }: { readonly secret: string; readonly code: string; readonly at: Date },
): Promise<string[]> {
  const counter = stepOf(secret, code, at);
  if (counter === null) throw new ProblemError('code-wrong');
  const recoveryCodes = Array.from({ length: RECOVERY_CODES }, newRecoveryCode);
  await database.transaction((trx) =>
    putCodes(trx, account, { secret, since: at, counter, recoveryHashes: recoveryCodes.map(hashOf) }),
  );
  return recoveryCodes;
}

/** Takes a one-time code, or a recovery code, once. @throws ProblemError `code-wrong` */
export async function takeCode(database: Database, account: string, code: string, at: Date): Promise<void> {
  const kept = await codesOf(database, account);
  const said = code.replace(/[\s-]/g, '').toLowerCase();
  if (kept) {
    const counter = stepOf(kept.secret, said, at);
    if (counter !== null && (await useCode(database, account, counter))) return;
    if (counter === null && (await useRecoveryCode(database, account, hashOf(said)))) return;
  }
  throw new ProblemError('code-wrong');
}

const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';
function newRecoveryCode(): string {
  const bits = [...randomBytes(RECOVERY_BYTES)].reduce((sum, byte) => sum * 256n + BigInt(byte), 0n);
  const letters = Array.from({ length: 10 }, (_, at) => LETTERS[Number((bits >> BigInt(5 * at)) & 31n)]).join('');
  return `${letters.slice(0, 5)}-${letters.slice(5)}`;
}

const hashOf = (code: string): string => createHash('sha256').update(code.replaceAll('-', '')).digest('hex');
