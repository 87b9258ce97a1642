import { printOf } from '#core/approval/print.ts';
import { type ApprovalRule, decides, ruleAt } from '#core/approval/rule.ts';
import { type ProposedPages, lackingApproval } from '#core/approval/standing.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { nodeDifferences } from '#core/model/node.ts';
import { isPractice } from '#core/model/practice.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { type Powers, heldAt, mayAt } from '#core/people/powers.ts';
import type { Role } from '#core/people/role.ts';
import type { Readiness } from '#core/model/plan.ts';
import type { Account } from '#contract/api.ts';
import type { ApprovalAnswer, ChangedSince, Proposal } from '#contract/approval.ts';
import type { BodyOf } from '#contract/routes.ts';
import type { PlainAccount } from '../accounts/account-repository.ts';
import type { Database } from '../database/connect.ts';
import type { EditService } from '../edits/edit-service.ts';
import type { ReleaseGate } from '../releases/release-service.ts';
import { siteAt } from '../history/site-at.ts';
import { notAllowed } from '../people/people.ts';
import { ProblemError } from '../problem.ts';
import { tellFeedback } from '../sharing/feedback-repository.ts';
import { type Talker, talkersOf } from '../talk/concern-repository.ts';
import { type TellingParts, tellConcerned } from '../talk/tell-concerned.ts';
import type { ConcernKind } from '#core/talk/thread.ts';
import {
  type StoredDecision,
  type StoredProposal,
  closeProposal,
  countOpen,
  deleteRule,
  insertDecision,
  insertProposal,
  lockProposal,
  lockRules,
  proposalsOf,
  putRule,
  rulesOf,
} from './approval-repository.ts';

/** A site has so many open proposals, and so many rules, at most. */
const MAX_OPEN = 500;
const MAX_RULES = 200;

interface Parts extends TellingParts {
  readonly edits: EditService;
}

/** Somebody with what they may do. */
interface Somebody {
  readonly id: string;
  readonly powers: Powers;
}

/** Agreeing before pages go live: which branches need approval, what is proposed, and what is decided about it. */
export class ApprovalService implements ReleaseGate {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  async show(key: SiteKey, account: Account): Promise<ApprovalAnswer> {
    const { database, cache, people } = this.#parts;
    const { site } = await cache.current(key);
    const [rules, stored, roles] = await Promise.all([
      rulesOf(database, key),
      proposalsOf(database, key, 'all'),
      people.rolesOf(key),
    ]);
    const self = { id: account.id, powers: await people.powersOf(key, account) };
    const proposals: Proposal[] = [];
    // What is proposed and decided is for who may read one of the pages.
    const isReadable = ({ pages, account: from }: StoredProposal) =>
      from === account.id || pages.some((page) => mayAt(site, self.powers, 'read', page));
    for (const { at, closedAt, decisions, ...one } of stored.filter(isReadable)) {
      const counted = await this.#counted(site, rules, roles, { at, closedAt, decisions, ...one });
      proposals.push({
        ...one,
        pages: [...one.pages],
        isOwn: one.account === account.id,
        at: at.toISOString(),
        closedAt: closedAt?.toISOString() ?? null,
        decisions: counted.map(({ id, account: by, by: name, at: when, kind, words, prints }) => ({
          id,
          account: by,
          by: name,
          at: when.toISOString(),
          kind,
          words,
          prints: { ...prints },
        })),
        toDecide:
          one.state === 'open' && one.account !== account.id ? decidedBy(site, rules, roles, one.pages, self) : [],
      });
    }
    return { rules: rules.filter(({ page }) => page === null || site.nodes.has(page)).map(answerOf), proposals };
  }

  /** @throws ProblemError `page-unknown`, `role-unknown`, `approval-unknown-person`, `talk-full` */
  async setRule(key: SiteKey, rule: BodyOf<'setApprovalRule'>): Promise<void> {
    const { database, cache, people } = this.#parts;
    const { site } = await cache.current(key);
    if (rule.page !== null && !maybeNodeAt(site, rule.page))
      throw new ProblemError('page-unknown', { page: rule.page });
    const { by } = rule;
    if ('role' in by) {
      if (!(await people.rolesOf(key)).some(({ id }) => id === by.role))
        throw new ProblemError('role-unknown', { role: by.role });
    } else {
      const known = new Set((await talkersOf(database, key)).map(({ id }) => id));
      if (by.people.some((id) => !known.has(id))) throw new ProblemError('approval-unknown-person');
    }
    await database.transaction(async (trx) => {
      await lockRules(trx, key);
      const others = (await rulesOf(trx, key)).filter(({ page }) => page !== rule.page);
      if (others.length >= MAX_RULES)
        throw new ProblemError('talk-full', { limit: `${MAX_RULES} branches with approval` });
      await putRule(trx, key, rule);
      await tellFeedback(trx, key);
    });
  }

  async removeRule(key: SiteKey, page: PageId | null): Promise<void> {
    await this.#parts.cache.current(key);
    await this.#parts.database.transaction(async (trx) => {
      await deleteRule(trx, key, page);
      await tellFeedback(trx, key);
    });
  }

  /** Offers pages. @throws ProblemError where one is not known, not theirs to write, or nothing of them differs from what is live */
  async propose(key: SiteKey, account: Account, { id, pages, note }: BodyOf<'propose'>): Promise<void> {
    const { database, cache, people, now } = this.#parts;
    const { site } = await cache.current(key);
    const unknown = pages.find((page) => !site.nodes.has(page));
    if (unknown !== undefined) throw new ProblemError('page-unknown', { page: unknown });
    for (const page of pages) await people.require(key, account, 'write', page);
    const waiting = [...new Set(pages)].filter(
      (page) => differencesOf(site, page).length > 0 && !isPractice(site, page),
    );
    if (waiting.length === 0) throw new ProblemError('proposal-nothing');
    const [rules, roles] = await Promise.all([rulesOf(database, key), people.rolesOf(key)]);
    const isOpen = await database.transaction(async (trx) => {
      if ((await countOpen(trx, key)) >= MAX_OPEN)
        throw new ProblemError('talk-full', { limit: `${MAX_OPEN} open proposals` });
      const at = now();
      const row = { id, site: key, account: account.id, by_name: account.name, note, pages: waiting };
      // Sent again, it is told to nobody twice; the plan follows it, should that have been cut short.
      if (!(await insertProposal(trx, row, at))) return (await proposalsOf(trx, key, { id }))[0]?.state === 'open';
      // Who proposes a page anew means this proposal, and not an earlier one of theirs.
      for (const earlier of await proposalsOf(trx, key, 'open'))
        if (
          earlier.id !== id &&
          earlier.account === account.id &&
          earlier.pages.every((page) => waiting.includes(page))
        )
          await closeProposal(trx, earlier.id, 'withdrawn', at);
      const deciders = await this.#deciders(trx, site, rules, roles, waiting, account.id);
      await this.#tell(
        trx,
        site,
        account,
        { proposal: id, page: waiting[0]!, kind: 'review', words: note },
        deciders,
        at,
      );
      await tellFeedback(trx, key);
      return true;
    });
    if (isOpen) await this.#setReadiness(key, account, waiting, 'in-review');
  }

  /** Approves pages as they were seen, or returns the proposal. @throws ProblemError */
  async decide(key: SiteKey, account: Account, proposal: string, body: BodyOf<'decide'>): Promise<void> {
    const { database, cache, people, now } = this.#parts;
    const { site, revision } = await cache.current(key);
    const powers = await people.powersOf(key, account);
    const [rules, roles] = await Promise.all([rulesOf(database, key), people.rolesOf(key)]);
    const stored = await database.transaction(async (trx) => {
      await lockProposal(trx, key, proposal);
      const found = await this.#found(trx, key, proposal);
      if (found.decisions.some(({ id }) => id === body.id)) return null;
      if (found.state !== 'open') throw new ProblemError('proposal-closed');
      const own = decidedBy(site, rules, roles, found.pages, { id: account.id, powers });
      requireDecider(site, powers, found, account, own);
      const prints = Object.fromEntries(own.map((page) => [page, printOf(site, page)]));
      if (body.kind === 'approved') {
        const changed = own.find((page) => body.prints[page] !== prints[page]);
        if (changed !== undefined) throw new ProblemError('proposal-changed', { pageTitle: titleOf(site, changed) });
      }
      const at = now();
      const { id, kind, words } = body;
      await insertDecision(
        trx,
        { id, proposal, account: account.id, by_name: account.name, kind, words, revision, prints },
        at,
      );
      if (kind === 'returned') await closeProposal(trx, proposal, 'returned', at);
      const proposer = (await talkersOf(trx, key)).filter((one) => one.id === found.account);
      await this.#tell(trx, site, account, { proposal, page: found.pages[0]!, kind, words }, proposer, at);
      await tellFeedback(trx, key);
      return found;
    });
    if (!stored) return;
    if (body.kind === 'returned') await this.#setReadiness(key, account, stored.pages, 'drafting');
    else await this.#setReadiness(key, account, await this.#approvedOf(key, stored.pages), 'ready');
  }

  /** @throws ProblemError */
  async withdraw(key: SiteKey, account: Account, proposal: string): Promise<void> {
    const { database, people, now } = this.#parts;
    const pages = await database.transaction(async (trx) => {
      await lockProposal(trx, key, proposal);
      const found = await this.#found(trx, key, proposal);
      if (found.account !== account.id) await people.require(key, account, 'everything', null);
      if (found.state !== 'open') return [];
      await closeProposal(trx, proposal, 'withdrawn', now());
      await tellFeedback(trx, key);
      return found.pages;
    });
    await this.#setReadiness(key, account, pages, 'drafting');
  }

  /** What is different on the pages of a proposal from what was last approved there. @throws ProblemError */
  async changedSince(key: SiteKey, account: Account, proposal: string): Promise<ChangedSince> {
    const { database, cache, people } = this.#parts;
    const now = await cache.current(key);
    const powers = await people.powersOf(key, account);
    const found = await this.#found(database, key, proposal);
    if (!found.pages.some((page) => mayAt(now.site, powers, 'read', page))) throw new ProblemError('proposal-unknown');
    const approvals = found.decisions.filter(({ kind }) => kind === 'approved');
    const earlier = new Map<number, Site>();
    const pages: ChangedSince['pages'] = [];
    for (const page of found.pages) {
      const last = approvals.filter(({ prints }) => prints[page] !== undefined).at(-1);
      const node = now.site.nodes.get(page);
      if (!last || !node || !mayAt(now.site, powers, 'read', page) || last.prints[page] === printOf(now.site, page))
        continue;
      const then = earlier.get(last.revision) ?? (await siteAt(database, now, last.revision));
      earlier.set(last.revision, then);
      const before = then.nodes.get(page);
      if (!before) continue;
      const differs = nodeDifferences(node, before);
      pages.push({
        page,
        differs,
        textBefore: before.content,
        textNow: node.content,
        approvedBy: last.by,
        at: last.at.toISOString(),
      });
    }
    return { pages };
  }

  /** What a release has to ask, for the site as it is when that is made: a function that refuses what lacks approval. */
  async gate(
    known: Site,
    account: PlainAccount,
    override: string | undefined,
  ): Promise<(site: Site, operation: ReleaseMade) => void> {
    const { database, people } = this.#parts;
    const rules = await rulesOf(database, known.key);
    if (rules.length === 0) return () => undefined;
    const powers = await people.powersOf(known.key, account);
    const proposals = await this.#countedOpen(known, rules);
    return (site, { pages, retire }) => {
      const lacking = lackingApproval(site, rules, proposals, { pages, retire }, () => true);
      if (lacking.length === 0) return;
      if (override === undefined)
        throw new ProblemError('approval-missing', { count: lacking.length, pageTitle: titleOf(site, lacking[0]!) });
      if (!mayAt(site, powers, 'everything', null))
        throw notAllowed(forbiddenWords(powers, { permission: 'everything', at: null, site }));
    };
  }

  /** Closes the proposals of which nothing waits any more. */
  async closeLive(site: Site): Promise<void> {
    const { database, now } = this.#parts;
    const open = await proposalsOf(database, site.key, 'open');
    const done = open.filter(({ pages }) => pages.every((page) => differencesOf(site, page).length === 0));
    for (const { id } of done) await closeProposal(database, id, 'live', now());
    if (done.length > 0) await tellFeedback(database, site.key);
  }

  /** The pages that are approved by now. */
  async #approvedOf(key: SiteKey, pages: readonly PageId[]): Promise<PageId[]> {
    const { database, cache } = this.#parts;
    const { site } = await cache.current(key);
    const rules = await rulesOf(database, key);
    const lacking = new Set(
      lackingApproval(site, rules, await this.#countedOpen(site, rules), { pages, retire: [] }, () => true),
    );
    return pages.filter((page) => !lacking.has(page));
  }

  async #countedOpen(site: Site, rules: readonly ApprovalRule[]): Promise<ProposedPages[]> {
    const { database, people } = this.#parts;
    const roles = await people.rolesOf(site.key);
    const proposals: ProposedPages[] = [];
    for (const one of await proposalsOf(database, site.key, 'open')) {
      const counted = await this.#counted(site, rules, roles, one);
      proposals.push({
        account: one.account,
        pages: one.pages,
        approvals: counted.flatMap(({ kind, account, prints }) =>
          kind === 'approved' && account !== null ? [{ account, prints }] : [],
        ),
      });
    }
    return proposals;
  }

  /** The decisions on a proposal, each with the pages alone about which whoever made it still decides. */
  async #counted(
    site: Site,
    rules: readonly ApprovalRule[],
    roles: readonly Role[],
    { decisions, account: from }: StoredProposal,
  ): Promise<StoredDecision[]> {
    const counted: StoredDecision[] = [];
    for (const decision of decisions) {
      const { account, looksAfterAll, prints } = decision;
      const powers =
        account === null ? null : await this.#parts.people.powersOf(site.key, { id: account, looksAfterAll });
      const pages = Object.keys(prints) as PageId[];
      const own =
        powers === null || account === from ? [] : decidedBy(site, rules, roles, pages, { id: account!, powers });
      counted.push({ ...decision, prints: Object.fromEntries(own.map((page) => [page, prints[page]!])) });
    }
    return counted;
  }

  /** Everybody who decides about one of these pages, without whoever proposes them. */
  async #deciders(
    trx: Database,
    site: Site,
    rules: readonly ApprovalRule[],
    roles: readonly Role[],
    pages: readonly PageId[],
    proposer: string,
  ): Promise<Talker[]> {
    const deciders: Talker[] = [];
    for (const talker of await talkersOf(trx, site.key)) {
      if (talker.id === proposer) continue;
      const powers = await this.#parts.people.powersOf(site.key, talker);
      if (decidedBy(site, rules, roles, pages, { id: talker.id, powers }).length > 0) deciders.push(talker);
    }
    return deciders;
  }

  async #found(trx: Database, key: SiteKey, id: string): Promise<StoredProposal> {
    const [found] = await proposalsOf(trx, key, { id });
    if (!found) throw new ProblemError('proposal-unknown');
    return found;
  }

  #tell(
    trx: Database,
    site: Site,
    by: Account,
    { proposal, page, kind, words }: { proposal: string; page: PageId; kind: ConcernKind; words: string },
    people: readonly Talker[],
    at: Date,
  ): Promise<void> {
    const told = { page, thread: null, comment: null, proposal, by_name: by.name, words };
    const concerned = people.map((one) => ({ ...one, kind }));
    return tellConcerned(trx, this.#parts, site, told, words, concerned, at);
  }

  /** What the plan says follows what was decided, whatever whoever decided may plan. */
  async #setReadiness(
    key: SiteKey,
    account: PlainAccount,
    pages: readonly PageId[],
    readiness: Readiness,
  ): Promise<void> {
    const { cache, edits } = this.#parts;
    const operationsOn = (site: Site): Operation[] =>
      pages
        .filter(
          (page) => maybeNodeAt(site, page)?.type === 'page' && site.nodes.get(page)!.plan?.readiness !== readiness,
        )
        .map((page) => ({ name: 'page.set', page, fields: { plan: { readiness } } }));
    await cache.inTurn(key, async () => {
      const { site } = await cache.catchUp(key);
      if (operationsOn(site).length === 0) return;
      await edits.commit(key, account, null, undefined, (latest) => ({
        operations: operationsOn(latest),
        kind: 'edit',
        follows: true,
      }));
    });
  }
}

type ReleaseMade = Extract<Operation, { name: 'release.make' }>;

const answerOf = ({ page, by, count }: ApprovalRule): ApprovalAnswer['rules'][number] => ({
  page,
  by: 'role' in by ? { role: by.role } : { people: [...by.people] },
  count,
});

/** Those of some pages about which somebody decides. */
const decidedBy = (
  site: Site,
  rules: readonly ApprovalRule[],
  roles: readonly Role[],
  pages: readonly PageId[],
  { id, powers }: Somebody,
): PageId[] =>
  pages.filter((page) => {
    const rule = ruleAt(site, rules, page);
    const permissions = heldAt(site, powers, page).held?.permissions ?? 0;
    return rule !== null && permissions !== 0 && decides(rule, roles, { id, permissions });
  });

/** @throws ProblemError with the reason */
function requireDecider(
  site: Site,
  powers: Powers,
  proposal: StoredProposal,
  account: Account,
  own: readonly PageId[],
): void {
  if (proposal.account === account.id)
    throw new ProblemError('proposal-not-yours', {
      reason: 'Nobody decides about what they have proposed themselves.',
    });
  if (own.length > 0) return;
  const page = proposal.pages[0]!;
  const { held } = heldAt(site, powers, page);
  throw new ProblemError('proposal-not-yours', {
    reason: `Others decide about ‘${titleOf(site, page)}’. Your role there is ${held?.role ?? 'none'}.`,
  });
}

const titleOf = (site: Site, page: PageId): string =>
  textIn(site.nodes.get(page)?.title ?? {}, site.settings.language) || page;
