import { upTo } from '#core/model/cut-text.ts';
import { isSoundText } from '#core/model/outside-json.ts';
import type { Destination } from '#core/model/redirect.ts';
import { type LiveView, type SitePlace, isAnswered, pathOf } from './live-view.ts';

/** Where a redirect takes a visitor: an address or `gone`; undefined where it leads to a page that they may not know of. */
export function whereTo(view: LiveView, to: Destination): string | 'gone' | undefined {
  if (to === 'gone') return to;
  if ('page' in to) return answeredAddress(view, view.derived.outline.rowOf.get(to.page));
  // An outside address that is the site's own is that page's, so that none leads on from there.
  const own = ownPath(view.place, to.url);
  return own === null ? to.url : answeredAddress(view, view.derived.rowAt.get(own));
}

const answeredAddress = (view: LiveView, row: number | undefined): string | undefined =>
  row === undefined || !isAnswered(view, row) ? undefined : pathOf(view.place, view.derived.addresses[row]!);

/** The path below the site of one of its whole addresses; null for an address of another. */
export function ownPath({ origin, base }: SitePlace, url: string | undefined): string | null {
  const start = `${origin}${base}`;
  if (url === undefined || (url !== start && !url.startsWith(`${start}/`))) return null;
  return decoded(upTo(url.slice(start.length), '?', '#') || '/');
}

/** A path as it is read; null where its escapes are not sound, or stand for what no text can have. */
export function decoded(path: string): string | null {
  try {
    const text = decodeURIComponent(path).normalize('NFC');
    return isSoundText(text) ? text : null;
  } catch {
    return null;
  }
}
