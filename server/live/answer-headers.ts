import { isBuiltIn } from '#core/model/audience.ts';
import type { LiveView } from './live-view.ts';

export const HTML = 'text/html; charset=utf-8';
/** What everyone gets may be kept by caches that ask again each time; what only some get, by their own browser alone. */
const FOR_EVERYONE = ['Cache-Control', 'public, no-cache'];
const FOR_ONE = ['Cache-Control', 'private, no-cache'];
export const NO_STORE: readonly string[] = ['Cache-Control', 'no-store'];
/** Search engines are to leave it out. */
export const NO_INDEX: readonly string[] = ['X-Robots-Tag', 'noindex'];

export const cachingOf = ({ isSignedIn, visitor }: LiveView): string[] =>
  isSignedIn || [...visitor].some((id) => !isBuiltIn(id)) ? FOR_ONE : FOR_EVERYONE;
