import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';

/** Nobody fills in a form in less; a robot does. */
export const QUICKEST_MS = 2_500;
/** After so long a form is to be looked at again before it is sent. */
export const LATEST_MS = 24 * 3_600_000;

/** When a form was shown: a moment in milliseconds since 1970, what no other one bears, and a signature that holds for one form of one site. */
export function makeStamp(secret: string, site: string, form: string, at: number): string {
  const said = `${at.toString(36)}.${randomBytes(9).toString('base64url')}`;
  return `${said}.${signed(secret, site, form, said)}`;
}

/** When the form was shown that bore a stamp, in milliseconds since 1970; null for one that we did not make. */
export function readStamp(secret: string, site: string, form: string, stamp: string): number | null {
  if (stamp.length > 100) return null;
  const [at = '', once = '', signature = ''] = stamp.split('.');
  const [given, own] = [Buffer.from(signature), Buffer.from(signed(secret, site, form, `${at}.${once}`))];
  if (given.length !== own.length || !timingSafeEqual(given, own)) return null;
  const moment = Number.parseInt(at, 36);
  return Number.isSafeInteger(moment) ? moment : null;
}

const signed = (secret: string, site: string, form: string, said: string): string =>
  createHmac('sha256', secret).update(`form|${site}|${form}|${said}`).digest('base64url');
