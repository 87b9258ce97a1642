import { type PageStanding, type ProposedPages, lackingApproval, standingOf } from '#core/approval/standing.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { ApprovalAnswer } from '#contract/approval.ts';

/** What is known of approvals on a site, beside its tree. */
export interface Approvals {
  readonly answer: ApprovalAnswer;
  /** How a page stands; worked out when it is asked for. */
  readonly standing: (page: PageId) => PageStanding;
  /** Those of the pages that a release makes live or takes down which lack an approval. */
  readonly lacking: (pages: readonly PageId[], retire?: readonly PageId[]) => PageId[];
}

/** The server leaves of each decision the pages alone about which whoever made it decides. */
const everyDecisionCounts = () => true;

/** @param site as it is now */
export function approvalsOf(site: Site, answer: ApprovalAnswer): Approvals {
  const { rules } = answer;
  const open: ProposedPages[] = answer.proposals
    .filter(({ state }) => state === 'open')
    .map(({ account, pages, decisions }) => ({
      account,
      pages,
      approvals: decisions.flatMap(({ kind, account: by, prints }) =>
        kind === 'approved' && by !== null ? [{ account: by, prints: prints as Readonly<Record<PageId, string>> }] : [],
      ),
    }));
  const known = new Map<PageId, PageStanding>();
  const standing = (page: PageId): PageStanding => {
    const before = known.get(page);
    if (before) return before;
    const now = standingOf(site, rules, open, page, everyDecisionCounts);
    known.set(page, now);
    return now;
  };
  return {
    answer,
    standing,
    lacking: (pages, retire = []) => lackingApproval(site, rules, open, { pages, retire }, everyDecisionCounts),
  };
}
