import type { Derived } from '#core/derive/derived.ts';
import type { LeadingAddress } from '#core/derive/redirects.ts';
import type { RedirectRule } from '#core/formats/redirect-rules.ts';

/**
 * Addresses that lead elsewhere as rules, with whole addresses. What rests, and what leads to a page that is hidden from those whom
 * `derived` is for, is left out. @param base the address of the site
 */
export const leadingRules = (
  leading: readonly Pick<LeadingAddress, 'path' | 'to' | 'because' | 'isResting'>[],
  { outline, addresses, hiddenBy }: Derived,
  base: string,
): RedirectRule[] =>
  leading.flatMap(({ path, to, because, isResting }): RedirectRule[] => {
    const isPattern = because === 'pattern';
    const rule = { address: path, path: isPattern ? path.slice(0, -2) : path, isPattern };
    if (isResting) return [];
    if (to === 'gone') return [{ ...rule, to: null }];
    if ('url' in to) return [{ ...rule, to: to.url }];
    const row = outline.rowOf.get(to.page);
    const target = row === undefined || hiddenBy[row] !== -1 ? null : addresses[row]!;
    return target === null ? [] : [{ ...rule, to: base + encodeURI(target) }];
  });
