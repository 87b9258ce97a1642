import type { PageId } from '../model/ids.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { printOf } from './print.ts';
import { type ApprovalRule, ruleAt } from './rule.ts';

/** Somebody who may decide has approved pages as they were then. */
export interface Approval {
  readonly account: string;
  /** What each page was (`printOf`). */
  readonly prints: Readonly<Record<PageId, string>>;
}

/** Pages that somebody offers for approval. */
export interface ProposedPages {
  /** Who offers them: whoever does cannot approve them. */
  readonly account: string | null;
  readonly pages: readonly PageId[];
  /** Those that count: of people who may decide, and have not returned it since. */
  readonly approvals: readonly Approval[];
}

/**
 * How a page stands. `free`: it needs no approval; `needed`: nobody has offered it; `waiting`: it is offered, and not enough have approved it;
 * `changed`: it was approved by enough, or by some, and then changed; `approved`.
 */
export const STANDINGS = ['free', 'needed', 'waiting', 'changed', 'approved'] as const;
export type ApprovalStanding = (typeof STANDINGS)[number];

/** Who decides about a page by its rule. */
export type Decides = (account: string, rule: ApprovalRule, page: PageId) => boolean;

/** How a page stands, with who has approved it as it is now. */
export interface PageStanding {
  readonly standing: ApprovalStanding;
  readonly rule: ApprovalRule | null;
  readonly by: readonly string[];
}

export function standingOf(
  site: Site,
  rules: readonly ApprovalRule[],
  proposals: readonly ProposedPages[],
  page: PageId,
  decides: Decides,
): PageStanding {
  const rule = ruleAt(site, rules, page);
  if (!rule) return { standing: 'free', rule, by: [] };
  const offered = proposals.filter(({ pages }) => pages.includes(page));
  if (offered.length === 0) return { standing: 'needed', rule, by: [] };
  const print = printOf(site, page);
  const now = new Set<string>();
  let wasApproved = false;
  for (const { account: from, approvals } of offered)
    for (const { account, prints } of approvals) {
      if (prints[page] === undefined || account === from || !decides(account, rule, page)) continue;
      if (prints[page] === print) now.add(account);
      else wasApproved = true;
    }
  const by = [...now];
  if (by.length >= rule.count) return { standing: 'approved', rule, by };
  return { standing: wasApproved ? 'changed' : 'waiting', rule, by };
}

/**
 * The pages of a release that lack an approval, in its order. That a page is taken down which stands in the tree is in no proposal: an approval of what
 * it says does not cover it.
 */
export const lackingApproval = (
  site: Site,
  rules: readonly ApprovalRule[],
  proposals: readonly ProposedPages[],
  { pages, retire }: { readonly pages: readonly PageId[]; readonly retire: readonly PageId[] },
  decides: Decides,
): PageId[] =>
  rules.length === 0
    ? []
    : [...pages, ...retire].filter((page, at) => {
        const { standing } = standingOf(site, rules, proposals, page, decides);
        if (standing === 'free') return false;
        return standing !== 'approved' || (at >= pages.length && maybeNodeAt(site, page) !== undefined);
      });
