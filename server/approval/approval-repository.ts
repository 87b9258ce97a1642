import type { Knex } from 'knex';
import type { ApprovalRule, DecidedBy } from '#core/approval/rule.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { PROPOSAL_STATES } from '#contract/approval.ts';

export type ProposalState = (typeof PROPOSAL_STATES)[number];

export interface StoredDecision {
  readonly id: string;
  readonly account: string | null;
  /** Whether that account looks after the installation. */
  readonly looksAfterAll: boolean;
  readonly by: string;
  readonly at: Date;
  readonly kind: 'approved' | 'returned';
  readonly words: string;
  readonly revision: number;
  readonly prints: Readonly<Record<PageId, string>>;
}

export interface StoredProposal {
  readonly id: string;
  readonly account: string | null;
  readonly by: string;
  readonly at: Date;
  readonly note: string;
  readonly pages: readonly PageId[];
  readonly state: ProposalState;
  readonly closedAt: Date | null;
  /** The earliest first. */
  readonly decisions: readonly StoredDecision[];
}

const MAX_CLOSED = 50;

export async function rulesOf(database: Knex, site: SiteKey): Promise<ApprovalRule[]> {
  const rows = await database('approval_rule').where({ site }).orderByRaw('page NULLS FIRST');
  return rows.map((row) => ({ page: row.page as PageId | null, by: row.decided_by as DecidedBy, count: row.count }));
}

export async function putRule(trx: Knex, site: SiteKey, { page, by, count }: ApprovalRule): Promise<void> {
  await deleteRule(trx, site, page);
  await trx('approval_rule').insert({ site, page, decided_by: JSON.stringify(by), count });
}

/** Locks the rules of a site until the transaction ends, so that two changes do not decide on the same state. */
export const lockRules = (trx: Knex, site: SiteKey): Promise<unknown> =>
  trx.raw('SELECT pg_advisory_xact_lock(hashtext(?))', [`approval ${site}`]);

export const deleteRule = (trx: Knex, site: SiteKey, page: PageId | null): Promise<number> =>
  trx('approval_rule').where({ site, page }).delete();

/** The open proposals of a site, and the latest that are closed; newest first. One of them where an id is given. */
export async function proposalsOf(
  database: Knex,
  site: SiteKey,
  which: 'all' | 'open' | { readonly id: string },
): Promise<StoredProposal[]> {
  const all = () => database('proposal').where({ site });
  const rows =
    typeof which === 'object'
      ? await all().andWhere({ id: which.id })
      : [
          ...(await all().andWhere({ state: 'open' }).orderBy('at', 'desc').orderBy('id')),
          ...(which === 'open'
            ? []
            : await all().whereNot({ state: 'open' }).orderBy('closed_at', 'desc').orderBy('id').limit(MAX_CLOSED)),
        ];
  const decisions = await database('proposal_decision as decision')
    .leftJoin('account', 'account.id', 'decision.account')
    .whereIn(
      'decision.proposal',
      rows.map(({ id }) => id),
    )
    .orderBy(['decision.at', 'decision.id'])
    .select('decision.*', 'account.looks_after_all');
  return rows.map((row) => ({
    id: row.id,
    account: row.account,
    by: row.by_name,
    at: row.at,
    note: row.note,
    pages: row.pages,
    state: row.state,
    closedAt: row.closed_at,
    decisions: decisions
      .filter(({ proposal }) => proposal === row.id)
      .map((one) => ({
        id: one.id,
        account: one.account,
        looksAfterAll: one.looks_after_all ?? false,
        by: one.by_name,
        at: one.at,
        kind: one.kind,
        words: one.words,
        revision: Number(one.revision),
        prints: one.prints,
      })),
  }));
}

/** Locks a proposal until the transaction ends. */
export const lockProposal = (trx: Knex, site: SiteKey, id: string): Promise<unknown> =>
  trx('proposal').where({ site, id }).forUpdate().select('id');

export const countOpen = async (database: Knex, site: SiteKey): Promise<number> =>
  Number((await database('proposal').where({ site, state: 'open' }).count('* as count').first())?.count ?? 0);

/** Gives whether it is new: one that is there already stays as it is. */
export async function insertProposal(
  trx: Knex,
  proposal: {
    readonly id: string;
    readonly site: SiteKey;
    readonly account: string;
    readonly by_name: string;
    readonly note: string;
    readonly pages: readonly PageId[];
  },
  at: Date,
): Promise<boolean> {
  const row = { ...proposal, pages: [...proposal.pages], at };
  return (await trx('proposal').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

/** Gives whether it is new: one that is there already stays as it is. */
export async function insertDecision(
  trx: Knex,
  decision: {
    readonly id: string;
    readonly proposal: string;
    readonly account: string;
    readonly by_name: string;
    readonly kind: StoredDecision['kind'];
    readonly words: string;
    readonly revision: number;
    readonly prints: StoredDecision['prints'];
  },
  at: Date,
): Promise<boolean> {
  const row = { ...decision, prints: JSON.stringify(decision.prints), at };
  return (await trx('proposal_decision').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

export const closeProposal = (trx: Knex, id: string, state: ProposalState, at: Date): Promise<unknown> =>
  trx('proposal').where({ id }).update({ state, closed_at: at });
