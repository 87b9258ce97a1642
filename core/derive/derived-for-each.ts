import { type AudienceId, EVERYONE, closureOf } from '../model/audience.ts';
import type { Site } from '../model/site.ts';
import { accessTable } from './access.ts';
import { type Derived, derivedFor, derivedOf, hiddenFor } from './derived.ts';
import type { MenuVisitor } from './menu.ts';

/** Somebody of one audience; of `everyone`, whoever is not signed in. */
export const visitorOf = (site: Site, audience: AudienceId): MenuVisitor => ({
  belongs: closureOf(site.settings.audiences, [audience]),
  isSignedIn: audience !== EVERYONE,
});

/** What is derived for each of several visitors, from one table of who may open what. @param at the moment, in milliseconds since 1970 */
export function derivedForEach(site: Site, visitors: readonly MenuVisitor[], at: number): Derived[] {
  const plain = derivedOf(site);
  const { outline } = plain;
  const members = visitors.map(({ belongs }) => belongs);
  const { open, locked } = accessTable(outline, site.settings, members, at);
  const passes = open.map((bits, row) => bits | locked[row]!);
  return visitors.map(({ isSignedIn }, bit) => {
    const other = isSignedIn ? 'signed-out' : 'signed-in';
    return derivedFor(plain, hiddenFor(plain, passes, bit), (row) => outline.nodes[row]!.access?.menuFor === other);
  });
}
