import { upTo } from '#core/model/cut-text.ts';
import { isSoundText } from '#core/model/outside-json.ts';
import type { Destination } from '#core/model/redirect.ts';
import { type LiveView, type SitePlace, isAnswered, isNamed, pathOf } from './live-view.ts';

/** What a redirect is for a visitor: an address, `gone`, or the row of a page whose address they are told once they gave its passphrase. */
export type Lead = { readonly to: string } | 'gone' | { readonly asks: number };

/** Where a redirect takes a visitor; undefined where it leads to a page that they may not know of. */
export function whereTo(view: LiveView, to: Destination): Lead | undefined {
  if (to === 'gone') return to;
  if ('page' in to) return leadTo(view, view.derived.outline.rowOf.get(to.page));
  // An outside address that is the site's own is that page's, so that none leads on from there.
  const own = ownPath(view.place, to.url);
  return own === null ? { to: to.url } : leadTo(view, view.derived.rowAt.get(own));
}

function leadTo(view: LiveView, row: number | undefined): Lead | undefined {
  if (row === undefined) return undefined;
  if (isNamed(view, row)) return { to: pathOf(view.place, view.derived.addresses[row]!) };
  return isAnswered(view, row) ? { asks: row } : undefined;
}

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
