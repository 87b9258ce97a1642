import { createHmac, timingSafeEqual } from 'node:crypto';
import type { PassphraseId } from '#core/model/access.ts';
import type { SiteKey } from '#core/model/ids.ts';

/** More passphrases than anybody is asked for on one site; those given first make room. */
const MAX_REMEMBERED = 20;

const signatureOf = (secret: string, site: string, text: string): Buffer =>
  createHmac('sha256', secret).update(`passphrases ${site} ${text}`).digest();

/** The passphrases that somebody has given on a site, as a token that only this installation can make. */
export function signPassphrases(secret: string, site: SiteKey, given: readonly PassphraseId[]): string {
  const text = [...new Set(given)].slice(-MAX_REMEMBERED).join('.');
  return `${text}.${signatureOf(secret, site, text).toString('base64url')}`;
}

/** What a token says was given; nothing where it was not made here, or for another site. */
export function readPassphrases(secret: string, site: string, token: string): PassphraseId[] {
  const end = token.lastIndexOf('.');
  const text = token.slice(0, Math.max(end, 0));
  const wanted = signatureOf(secret, site, text);
  const given = Buffer.from(token.slice(end + 1), 'base64url');
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return [];
  return text.split('.') as PassphraseId[];
}
