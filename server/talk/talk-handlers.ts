import type { Services } from '../handlers.ts';
import { pageOf, siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { setMails } from './concern-repository.ts';
import { TalkService } from './talk-service.ts';

type Names =
  | 'listThreads'
  | 'startThread'
  | 'answerThread'
  | 'changeThreadComment'
  | 'deleteThreadComment'
  | 'settleThread'
  | 'handOverTalk'
  | 'followPage'
  | 'showConcerns'
  | 'readConcerns'
  | 'setMails';

const threadIn = ({ params }: { readonly params: Readonly<Record<string, unknown>> }): string =>
  uuidOf(params.thread, 'thread-unknown');
const commentIn = ({ params }: { readonly params: Readonly<Record<string, unknown>> }): string =>
  uuidOf(params.comment, 'thread-unknown');

/** What colleagues say of pages, and what concerns each of them. */
export function makeTalkHandlers(
  services: Pick<Services, 'database' | 'cache' | 'people' | 'mailer' | 'origin' | 'now'>,
): Pick<Handlers, Names> {
  const talk = new TalkService(services);
  return {
    listThreads: ({ request, account }) => {
      const { page } = request.query;
      return talk.threads(siteOf(request), account, page === undefined ? null : pageOf(page));
    },
    startThread: async ({ request, body, account }) => ({
      thread: await talk.start(siteOf(request), account, pageOf(request.params.page), body),
    }),
    answerThread: async ({ request, body, account }) => ({
      thread: await talk.answer(siteOf(request), account, threadIn(request), body),
    }),
    handOverTalk: ({ request, body }) =>
      talk.handOver(siteOf(request), uuidOf(request.params.colleague, 'colleague-unknown'), body.to),
    changeThreadComment: async ({ request, body, account }) => ({
      thread: await talk.changeComment(siteOf(request), account, threadIn(request), commentIn(request), body.text),
    }),
    deleteThreadComment: async ({ request, account }) => {
      await talk.deleteComment(siteOf(request), account, threadIn(request), commentIn(request));
      return { ok: true };
    },
    settleThread: async ({ request, body, account }) => ({
      thread: await talk.settle(siteOf(request), account, threadIn(request), body.isSettled),
    }),
    followPage: async ({ request, body, account }) => {
      await talk.follow(siteOf(request), account, pageOf(request.params.page), body.isFollowing);
      return { ok: true };
    },
    showConcerns: ({ request, account }) => talk.concerns(siteOf(request), account),
    readConcerns: async ({ request, body, account }) => {
      await talk.markRead(siteOf(request), account, body);
      return { ok: true };
    },
    setMails: async ({ body, account }) => {
      await setMails(services.database, account.id, body.mails);
      return { ok: true };
    },
  };
}
