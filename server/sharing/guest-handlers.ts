import { randomUUID } from 'node:crypto';
import type { Request } from 'express';
import { type FileId, fileIdSchema } from '#core/files/file.ts';
import { surroundOf } from '#core/sketch/surround.ts';
import { sketchOf } from '#core/model/sketch.ts';
import { sharedPlan } from '#core/derive/shared-plan.ts';
import { editsOfProposal } from '#core/arrange/proposal.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { AboutBoard, AboutSketch, Proposes } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import { sketchIdSchema } from '#core/model/plan.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import type { Services } from '../handlers.ts';
import { ProblemError, refusalProblem } from '../problem.ts';
import { pageOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { isPassword } from '../security/passwords.ts';
import { sendLibraryFile } from '../library/send-library-file.ts';
import { PackedTrees } from '../sites/packed-trees.ts';
import {
  type Guest,
  countComments,
  countGuests,
  deleteComment,
  feedbackOf,
  guestAt,
  insertComment,
  insertGuest,
  putChoice,
  putVerdict,
  tellFeedback,
} from './feedback-repository.ts';
import { type Share, markOpened, shareByToken } from './share-repository.ts';
import { stateOf } from './sharing-handlers.ts';

/** What a browser's session knows of a link: that its passphrase was given, and who comments by it. */
export interface GuestSession {
  readonly isUnlocked: boolean;
  readonly guest: string | null;
}

declare module 'express-session' {
  interface SessionData {
    /** By the id of the link. */
    shared?: Record<string, GuestSession>;
  }
}

const MAX_GUESTS = 300;
const MAX_COMMENTS = 2000;
const UNKNOWN: GuestSession = { isUnlocked: false, guest: null };

type Guests =
  | 'showSharedPlan'
  | 'showSharedTree'
  | 'givePassphrase'
  | 'nameGuest'
  | 'showSurround'
  | 'showBoardPicture'
  | 'showBoardPictures'
  | 'giveVerdict'
  | 'chooseVariant'
  | 'addComment'
  | 'takeBackComment';

/** What people without an account do by a link. Each of these begins with `enter`, which checks the link. */
export function makeGuestHandlers({
  database,
  cache,
  attempts,
  library,
  now,
}: Pick<Services, 'database' | 'cache' | 'attempts' | 'library' | 'now'>): Pick<Handlers, Guests> {
  const trees = new PackedTrees();

  /** The link that the address names. @throws ProblemError where there is none, or where it does not work any more. */
  const linkOf = async (request: Request): Promise<Share> => {
    const share = await shareByToken(database, String(request.params.token));
    if (!share) throw new ProblemError('share-unknown');
    const state = stateOf(share, now());
    if (state === 'withdrawn') throw new ProblemError('share-withdrawn', { by: share.made_by_name });
    if (state === 'over')
      throw new ProblemError('share-over', {
        by: share.made_by_name,
        at: share.expires_at.toLocaleDateString('en-GB', { dateStyle: 'long', timeZone: 'UTC' }),
      });
    return share;
  };
  /** The link, with its passphrase given where it asks for one. @throws ProblemError */
  const enter = async (request: Request): Promise<Share> => {
    const share = await linkOf(request);
    if (share.passphrase_hash !== null && !knownOf(request, share).isUnlocked)
      throw new ProblemError('share-locked', { by: share.made_by_name });
    return share;
  };
  /** Who comments in this browser. @throws ProblemError where nobody has given a name yet. */
  const guestOf = async (request: Request, share: Share): Promise<Guest> => {
    const { guest } = knownOf(request, share);
    const found = guest === null ? undefined : await guestAt(database, share.id, guest);
    if (!found) throw new ProblemError('guest-unnamed');
    return found;
  };
  const requirePage = async ({ site: key }: Share, page: PageId): Promise<void> => {
    const { site } = await cache.current(key);
    if (!maybeNodeAt(site, page)) throw new ProblemError('page-unknown', { page });
  };
  /** A variant of a sketch, and a box of it where one is named, as they are now. @throws ProblemError */
  const requireVariant = async ({ site: key }: Share, { sketch: id, variant, box }: AboutSketch): Promise<void> => {
    const { site } = await cache.current(key);
    const sketch = site.sketches.find((one) => one.id === id);
    if (!sketch) throw new ProblemError('sketch-unknown', { sketch: id });
    const found = sketch.variants.find((one) => one.id === variant);
    if (!found) throw new ProblemError('variant-unknown', { variant });
    if (box !== null && !found.boxes.some((one) => one.id === box)) throw new ProblemError('box-unknown', { box });
  };
  /** A piece of a board, or the board. @throws ProblemError */
  const requirePiece = async ({ site: key }: Share, { board: id, piece }: AboutBoard): Promise<void> => {
    const { site } = await cache.current(key);
    const board = site.boards.find((one) => one.id === id);
    if (!board) throw new ProblemError('board-unknown', { board: id });
    if (piece !== null && !board.pieces.some((one) => one.id === piece))
      throw new ProblemError('piece-unknown', { piece });
  };
  /** What a comment is about: a page, something of its sketch, or a board in place of a page. @throws ProblemError */
  const requireAbout = async (
    share: Share,
    page: PageId | null,
    about: AboutSketch | AboutBoard | null,
  ): Promise<void> => {
    const isOfBoard = about !== null && 'board' in about;
    if ((page === null) !== isOfBoard) throw new ProblemError('comment-about-nothing');
    if (isOfBoard) await requirePiece(share, about);
    else if (about !== null) await requireVariant(share, about);
  };
  /** A proposal that could be accepted as the tree is now. @throws ProblemError */
  const requirePossible = async (share: Share, page: PageId, proposes: Proposes): Promise<void> => {
    if (proposes.place?.near) await requirePage(share, proposes.place.near);
    const { site } = await cache.current(share.site);
    const edits = editsOfProposal(site, page, proposes);
    if (!edits.ok) throw refusalProblem(edits, site);
    if (edits.operations.length === 0) throw new ProblemError('proposal-changes-nothing');
    const outcome = applyOperations(site, edits.operations);
    if (!outcome.ok) throw refusalProblem(outcome, site);
  };

  return {
    showSharedPlan: async ({ request }) => {
      const share = await enter(request);
      const { guest } = knownOf(request, share);
      const [{ site, revision }, feedback, named] = await Promise.all([
        cache.current(share.site),
        feedbackOf(database, { share: share.id }),
        guest === null ? undefined : guestAt(database, share.id, guest),
        markOpened(database, share.id, now()),
      ]);
      return {
        site: site.settings.name,
        name: share.name,
        madeBy: share.made_by_name,
        expiresAt: share.expires_at.toISOString(),
        revision,
        guest: named ? { id: named.id, name: named.name } : null,
        feedback,
      };
    },
    showSharedTree: async ({ request, response }) => {
      const share = await enter(request);
      const { site, revision } = await cache.current(share.site);
      return trees.send(request, response, { site, revision }, sharedPlan);
    },
    givePassphrase: async ({ request, body }) => {
      const share = await linkOf(request);
      const hash = share.passphrase_hash;
      if (hash !== null) {
        await attempts.guard({ place: request.ip, account: `share:${share.id}`, isShared: true }, async () => {
          if (!(await isPassword(hash, body.passphrase)))
            throw new ProblemError('passphrase-wrong', { by: share.made_by_name });
        });
      }
      await remember(request, share, { isUnlocked: true });
      return { ok: true };
    },
    nameGuest: async ({ request, body }) => {
      const share = await enter(request);
      if ((await countGuests(database, share.id)) >= MAX_GUESTS)
        throw new ProblemError('feedback-full', { limit: MAX_GUESTS });
      const guest = { id: randomUUID(), name: body.name, email: body.email === '' ? null : body.email };
      if (!(await insertGuest(database, share.id, guest, now())))
        throw new ProblemError('guest-name-taken', { name: body.name });
      await remember(request, share, { guest: guest.id });
      return { ok: true };
    },
    showSurround: async ({ request }) => {
      const share = await enter(request);
      const page = pageOf(request.params.page);
      const { site } = await cache.current(share.site);
      const node = maybeNodeAt(site, page);
      if (!node || !sketchOf(site, node)) throw new ProblemError('page-unknown', { page });
      return surroundOf(site, page);
    },
    showBoardPictures: async ({ request }) => {
      const share = await enter(request);
      const { site } = await cache.current(share.site);
      const shown = picturesOn(site);
      if (shown.size === 0) return { pictures: [] };
      const files = (await library.list(site.key)).filter(({ id }) => shown.has(id));
      return {
        pictures: files.map(({ id, content, alternative, name }) => ({
          file: id,
          content,
          words: alternative || name,
        })),
      };
    },
    showBoardPicture: async ({ request, response }) => {
      const share = await enter(request);
      const { site } = await cache.current(share.site);
      const named = fileIdSchema.safeParse(request.params.file);
      // Whoever has the link sees what lies on boards, and nothing else of the library.
      if (!named.success || !picturesOn(site).has(named.data))
        throw new ProblemError('file-unknown', { file: String(request.params.file).slice(0, 60) });
      return sendLibraryFile(library, await library.show(site.key, named.data), request, response);
    },
    giveVerdict: async ({ request, body }) => {
      const share = await enter(request);
      const guest = await guestOf(request, share);
      const page = pageOf(request.params.page);
      await requirePage(share, page);
      await database.transaction(async (trx) => {
        await putVerdict(trx, guest.id, page, body.verdict, now());
        await tellFeedback(trx, share.site);
      });
      return { ok: true };
    },
    chooseVariant: async ({ request, body: { variant } }) => {
      const share = await enter(request);
      const guest = await guestOf(request, share);
      const named = sketchIdSchema.safeParse(request.params.sketch);
      if (!named.success)
        throw new ProblemError('sketch-unknown', { sketch: String(request.params.sketch).slice(0, 60) });
      const sketch = named.data;
      if (variant !== null) await requireVariant(share, { sketch, variant, box: null });
      await database.transaction(async (trx) => {
        await putChoice(trx, guest.id, sketch, variant, now());
        await tellFeedback(trx, share.site);
      });
      return { ok: true };
    },
    addComment: async ({ request, body }) => {
      const share = await enter(request);
      const guest = await guestOf(request, share);
      if (body.page !== null) await requirePage(share, body.page);
      if (body.kind === 'proposal') await requirePossible(share, body.page, body.proposes);
      else await requireAbout(share, body.page, body.about);
      if ((await countComments(database, share.id)) >= MAX_COMMENTS)
        throw new ProblemError('feedback-full', { limit: MAX_COMMENTS });
      await database.transaction(async (trx) => {
        await insertComment(trx, { id: randomUUID(), guest: guest.id, ...body }, now());
        await tellFeedback(trx, share.site);
      });
      return { ok: true };
    },
    takeBackComment: async ({ request }) => {
      const share = await enter(request);
      const guest = await guestOf(request, share);
      const outcome = await deleteComment(database, guest.id, uuidOf(request.params.comment, 'comment-unknown'));
      if (outcome === 'unknown') throw new ProblemError('comment-unknown');
      if (outcome !== 'deleted') throw new ProblemError('comment-answered', { by: outcome.answeredBy });
      await tellFeedback(database, share.site);
      return { ok: true };
    },
  };
}

/** The files of the library that lie on boards of the site. */
const picturesOn = ({ boards }: Site): Set<FileId> =>
  new Set(
    boards.flatMap(({ pieces }) =>
      pieces.flatMap((one) => (one.kind === 'picture' && one.file !== null ? [one.file] : [])),
    ),
  );

const knownOf = (request: Request, { id }: Share): GuestSession => request.session.shared?.[id] ?? UNKNOWN;

/**
 * Keeps in the session what is known of a link. The session gets a new id, so that one that somebody else has put into
 * this browser opens nothing for them.
 */
async function remember(request: Request, share: Share, known: Partial<GuestSession>): Promise<void> {
  const { account, shared } = request.session;
  const next = { ...shared, [share.id]: { ...knownOf(request, share), ...known } };
  await new Promise<void>((resolve, reject) =>
    request.session.regenerate((fault) => (fault ? reject(fault) : resolve())),
  );
  if (account) request.session.account = account;
  request.session.shared = next;
}
