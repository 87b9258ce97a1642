/**
 * Cutting texts from outside, each in time that grows with their length alone: a pattern such as `/\/+$/` looks anew from
 * each sign on, and stops the process for whoever sends a long text.
 */

/** The part before the first of these signs; the whole text where it has none of them. */
export function upTo(text: string, ...signs: readonly string[]): string {
  const places = signs.map((sign) => text.indexOf(sign)).filter((at) => at !== -1);
  return places.length === 0 ? text : text.slice(0, Math.min(...places));
}

/** The text from the first of a sign on; '' where it has none. */
export function fromFirst(text: string, sign: string): string {
  const at = text.indexOf(sign);
  return at === -1 ? '' : text.slice(at);
}

/** The text without any of these signs at its end. */
export function withoutTrailing(text: string, signs: string): string {
  let end = text.length;
  while (end > 0 && signs.includes(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** The beginning of a text, so many UTF-16 units at most; no sign is cut in two. */
export function cutTo(text: string, most: number): string {
  if (text.length <= most) return text;
  const isHalf = /[\ud800-\udbff]/.test(text[most - 1]!);
  return text.slice(0, isHalf ? most - 1 : most);
}

/** RFC 5321, 4.5.3.1.3, with the erratum 1690: an address is no longer, whatever its parts. */
const MAX_MAIL_ADDRESS = 254;

/** Whether a text can be a mail address: something, an @, and a name of parts with dots between. What it leads to is found by writing to it. */
export function isMailAddress(text: string): boolean {
  if (text.length > MAX_MAIL_ADDRESS || /\s/.test(text)) return false;
  const [name = '', host = '', ...more] = text.split('@');
  const parts = host.split('.');
  return name !== '' && more.length === 0 && parts.length > 1 && parts.every((part) => part !== '');
}
