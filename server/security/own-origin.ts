import type { IncomingHttpHeaders } from 'node:http';

/**
 * Whether a request says that it comes from the pages of the server that it is sent to: by scheme, host and port.
 * @param own the server's outside address; null where none was named: then it is `http` and the host that the request names
 */
export function isOwnOrigin({ origin, host }: IncomingHttpHeaders, own: string | null): boolean {
  if (origin === undefined || !URL.canParse(origin)) return false;
  const wanted = own ?? (host === undefined ? '' : `http://${host}`);
  return URL.canParse(wanted) && new URL(wanted).origin === new URL(origin).origin;
}

/** The header by which browsers keep to https, for a server whose outside address has it (RFC 6797); a year, and this host alone. */
export const STRICT_TRANSPORT = ['Strict-Transport-Security', 'max-age=31536000'] as const;

export const isSecure = (own: string | null): boolean => own?.startsWith('https:') ?? false;
