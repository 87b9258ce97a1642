import { randomUUID } from 'node:crypto';
import { addDays } from 'date-fns';
import { editsOfProposal } from '#core/arrange/proposal.ts';
import type { Proposes } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { ShareAnswer } from '#contract/sharing.ts';
import type { Services } from '../handlers.ts';
import { ProblemError, refusalProblem } from '../problem.ts';
import { wordsOfAll } from '../edits/edit-service.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { latestMails } from '../standins/outbox-repository.ts';
import { commentForAnswer, feedbackOf, setAnswer, setSettled, tellFeedback } from './feedback-repository.ts';
import { acceptance, invitation, reply } from './share-mails.ts';
import {
  type CountedShare,
  type Share,
  countOpenShares,
  insertShare,
  newToken,
  shareById,
  sharesOf,
  withdrawShare,
} from './share-repository.ts';

/** A site has at most so many links that work. */
const MAX_OPEN = 100;

type Sharing =
  | 'listShares'
  | 'makeShare'
  | 'withdrawShare'
  | 'inviteToShare'
  | 'showFeedback'
  | 'settleFeedback'
  | 'answerComment'
  | 'acceptProposal'
  | 'listOutbox';

/** Sharing the plan of a site, and what its manager does with what is said of it. */
export function makeSharingHandlers({
  database,
  cache,
  people,
  edits,
  mailer,
  origin,
  now,
}: Pick<Services, 'database' | 'cache' | 'people' | 'edits' | 'mailer' | 'origin' | 'now'>): Pick<Handlers, Sharing> {
  const invitations = async (
    share: Share,
    { invite, letter }: { readonly invite: readonly string[]; readonly letter: string },
    by: string,
  ) => {
    const { site } = await cache.current(share.site);
    const link = `${origin}${pathOf(share)}`;
    const hasPassphrase = share.passphrase_hash !== null;
    return [...new Set(invite)].map((to) =>
      invitation(to, { by, site: site.settings.name, link, expiresAt: share.expires_at, hasPassphrase, letter }),
    );
  };
  return {
    listShares: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const at = now();
      return { shares: (await sharesOf(database, key)).map((share) => shareAnswerOf(share, at)) };
    },
    makeShare: async ({ request, body, account }) => {
      const key = siteOf(request);
      await cache.current(key);
      const at = now();
      const share: Share = {
        id: randomUUID(),
        site: key,
        name: body.name,
        token: newToken(),
        passphrase_hash: body.passphrase === undefined ? null : await hashOfPassword(body.passphrase),
        made_by: account.id,
        made_by_name: account.name,
        made_at: at,
        expires_at: addDays(at, body.days),
        withdrawn_at: null,
        last_opened_at: null,
      };
      const mails = await invitations(share, body, account.name);
      await database.transaction(async (trx) => {
        if ((await countOpenShares(trx, key, at)) >= MAX_OPEN)
          throw new ProblemError('share-too-many', { limit: MAX_OPEN });
        await insertShare(trx, share);
        await mailer.send(trx, mails, at);
      });
      return shareAnswerOf({ ...share, guests: 0, verdicts: 0, comments: 0 }, at);
    },
    withdrawShare: async ({ request }) => {
      const found = await withdrawShare(
        database,
        siteOf(request),
        uuidOf(request.params.share, 'share-unknown'),
        now(),
      );
      if (!found) throw new ProblemError('share-unknown');
      return { ok: true };
    },
    inviteToShare: async ({ request, body, account }) => {
      const share = await shareById(database, siteOf(request), uuidOf(request.params.share, 'share-unknown'));
      if (!share) throw new ProblemError('share-unknown');
      const at = now();
      if (stateOf(share, at) !== 'open') throw new ProblemError('share-not-open');
      await mailer.send(database, await invitations(share, body, account.name), at);
      return { ok: true };
    },

    showFeedback: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      return feedbackOf(database, { site: key });
    },
    settleFeedback: async ({ request, body, account }) => {
      const key = siteOf(request);
      await cache.current(key);
      for (const page of body.pages) await people.require(key, account, 'comment', page);
      await database.transaction(async (trx) => {
        await setSettled(trx, key, body.pages, body.isSettled ? account.name : null);
        await tellFeedback(trx, key);
      });
      return { ok: true };
    },
    answerComment: async ({ request, body, account }) => {
      const key = siteOf(request);
      const id = uuidOf(request.params.comment, 'comment-unknown');
      const { site } = await cache.current(key);
      await database.transaction(async (trx) => {
        const found = await commentForAnswer(trx, key, id);
        if (!found) throw new ProblemError('comment-unknown');
        const { comment, email } = found;
        await people.require(key, account, 'comment', comment.page);
        const isNew = body.answer !== '' && body.answer !== comment.answer;
        await setAnswer(trx, id, {
          answer: body.answer,
          answered_by: body.answer === '' ? null : isNew ? account.name : comment.answeredBy,
          settled_by: body.isSettled ? (comment.settledBy ?? account.name) : null,
          is_accepted: body.isSettled && comment.isAccepted,
        });
        if (isNew && email !== null) {
          await mailer.send(trx, [reply(email, { by: account.name, site, comment, answer: body.answer })], now());
        }
        await tellFeedback(trx, key);
      });
      return { ok: true };
    },
    acceptProposal: async ({ request, body, account }) => {
      const key = siteOf(request);
      const id = uuidOf(request.params.comment, 'comment-unknown');
      const found = await commentForAnswer(database, key, id);
      if (!found) throw new ProblemError('comment-unknown');
      const { proposes, page, by } = found.comment;
      if (proposes === null || page === null) throw new ProblemError('comment-no-proposal');
      // What the page was called when it was proposed.
      const { site: before } = await cache.current(key);
      await cache.inTurn(key, async () => {
        if (await edits.repeated(key, body.request)) return;
        const { site: known } = await cache.catchUp(key);
        if (operationsOf(known, page, proposes).length === 0) return;
        await edits.commit(key, account, body.request ?? null, undefined, (site) => {
          const operations = operationsOf(site, page, proposes);
          return { operations, words: `${wordsOfAll(operations, site)}, as ${by} proposed`, kind: 'edit' };
        });
      });
      // The page is what was proposed by now: where settling fails, accepting once more changes nothing and settles.
      await database.transaction(async (trx) => {
        const still = await commentForAnswer(trx, key, id);
        if (!still || still.comment.isAccepted) return;
        const { comment, email } = still;
        const { answer, answeredBy } = comment;
        await setAnswer(trx, id, { answer, answered_by: answeredBy, settled_by: account.name, is_accepted: true });
        if (email !== null)
          await mailer.send(trx, [acceptance(email, { by: account.name, site: before, comment })], now());
        await tellFeedback(trx, key);
      });
      return { ok: true };
    },
    listOutbox: async () => ({ mails: await latestMails(database) }),
  };
}

/** @throws ProblemError where the tree forbids it by now */
function operationsOf(site: Site, page: PageId, proposes: Proposes): readonly Operation[] {
  const edits = editsOfProposal(site, page, proposes);
  if (!edits.ok) throw refusalProblem(edits, site);
  return edits.operations;
}

const pathOf = ({ token }: Share): string => `/shared/${token}`;

/** Whether a link works, has run out, or was withdrawn. */
export const stateOf = ({ withdrawn_at, expires_at }: Share, now: Date): ShareAnswer['state'] =>
  withdrawn_at !== null ? 'withdrawn' : expires_at <= now ? 'over' : 'open';

const shareAnswerOf = (share: CountedShare, now: Date): ShareAnswer => ({
  id: share.id,
  name: share.name,
  path: pathOf(share),
  hasPassphrase: share.passphrase_hash !== null,
  madeBy: share.made_by_name,
  madeAt: share.made_at.toISOString(),
  expiresAt: share.expires_at.toISOString(),
  state: stateOf(share, now),
  lastOpenedAt: share.last_opened_at?.toISOString() ?? null,
  guests: share.guests,
  verdicts: share.verdicts,
  comments: share.comments,
});
