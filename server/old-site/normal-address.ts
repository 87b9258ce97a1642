/**
 * An address as an inventory keeps it: absolute, with the host in small letters and without the fragment. Null where it
 * is not a web address.
 */
export function normalAddress(text: string, base?: string): string | null {
  if (text.length > 2000 || !URL.canParse(text, base)) return null;
  const url = new URL(text, base);
  if (!/^https?:$/.test(url.protocol)) return null;
  url.hash = '';
  url.username = '';
  url.password = '';
  return url.href;
}
