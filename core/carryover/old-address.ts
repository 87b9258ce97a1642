import { upTo, withoutTrailing } from '../model/cut-text.ts';

/**
 * The part of an old address that a redirect is found by: its path and query. Scheme, host and fragment are left out,
 * escapes are undone where they stand for letters, and a slash at the end is dropped: `https://old.example/a%20b/?x=1`
 * becomes `/a b?x=1`.
 */
export function pathOfOldAddress(address: string): string {
  const withoutHost = upTo(address.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/?#]*/i, ''), '#');
  const [path = '', ...query] = withoutHost.split('?');
  const rooted = path.startsWith('/') ? path : `/${path}`;
  const trimmed = withoutTrailing(rooted, '/') || '/';
  return decoded(trimmed) + (query.length > 0 && query.join('?') !== '' ? `?${query.join('?')}` : '');
}

function decoded(text: string): string {
  try {
    return decodeURI(text).normalize('NFC');
  } catch {
    return text;
  }
}
