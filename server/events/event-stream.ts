import type { Request, Response } from 'express';
import type { SiteKey } from '#core/model/ids.ts';
import { maySomewhere } from '#core/people/powers.ts';
import type { CommittedEdit } from '#contract/api.ts';
import type { ReleaseProgress } from '#contract/releases.ts';
import { type HereNews, hereBody } from '#contract/presence.ts';
import type { WritingNews } from '#contract/writing.ts';
import type { Database } from '../database/connect.ts';
import { editsAfter } from '../sites/site-repository.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { RememberedSessions } from '../accounts/remembered-sessions.ts';
import type { People } from '../people/people.ts';
import { type Presence, tellHere } from './presence.ts';
import type { JointTexts } from '../joint/joint-texts.ts';
import type { SiteNews } from './site-news.ts';

/** A comment is sent so often, so that nothing between takes the stream for dead. */
const BEAT_MS = 20_000;

interface Sources {
  readonly sessions: RememberedSessions;
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly peopleNews: SiteNews;
  readonly feedbackNews: SiteNews;
  readonly answerNews: SiteNews;
  readonly releaseNews: SiteNews<ReleaseProgress>;
  readonly writingNews: SiteNews<WritingNews>;
  readonly presence: Presence;
  readonly jointTexts: Pick<JointTexts, 'news'>;
}

/**
 * Sends the edits of a site to one browser as they are committed: first those after the revision that it has, then
 * each new one. The id of an event is its revision. Nothing is left out and nothing comes twice. Between them it says,
 * without an id, when something was said of the site's plan, who is where, who writes in which text and what is new in it, how far a release is, and that colleagues or roles have changed.
 */
export async function streamEdits(
  request: Request,
  response: Response,
  {
    sessions,
    database,
    cache,
    people,
    peopleNews,
    feedbackNews,
    answerNews,
    releaseNews,
    writingNews,
    presence,
    jointTexts,
  }: Sources,
  key: SiteKey,
  since: number,
): Promise<void> {
  response.writeHead(200, {
    'Content-Type': 'text/event-stream; charset=utf-8',
    'Cache-Control': 'no-store',
    'X-Accel-Buffering': 'no',
  });
  const write = (text: string) => {
    if (!response.writableEnded) response.write(text);
  };
  write('retry: 1000\n\n');
  let sent = since;
  let waiting: CommittedEdit[] | null = [];
  const send = (edit: CommittedEdit) => {
    if (edit.revision <= sent) return;
    sent = edit.revision;
    write(`id: ${edit.revision}\nevent: edit\ndata: ${JSON.stringify(edit)}\n\n`);
  };
  const stop = cache.onEdit(key, (edit) => {
    if (waiting) waiting.push(edit);
    else send(edit);
  });
  // It ends with the session: at once where that is heard of, else with the next beat.
  const beat = setInterval(() => {
    write(': here\n\n');
    sessions.get(request.sessionID, (fault, session) => {
      if (!fault && !session?.account) response.end();
    });
  }, BEAT_MS);
  // Whoever is no colleague any more hears no more of the site.
  const endIfShutOut = async () => {
    const { account } = request.session;
    if (!account || !maySomewhere(await people.powersOf(key, account), 'read')) response.end();
  };
  const sendHere = (news: HereNews) => write(`event: here\ndata: ${JSON.stringify(news)}\n\n`);
  // Whoever comes learns who is there; whoever goes is gone for the others at once.
  for (const news of presence.on(key)) sendHere(news);
  const tab = tabIn(request);
  const leave = () => {
    const by = request.session.account?.name ?? '';
    if (tab !== null)
      void tellHere(database, key, { tab, by, page: null, setting: null, field: null, isHere: false }).catch(
        () => undefined,
      );
  };
  const stops = [
    sessions.onEnd(request.sessionID, () => response.end()),
    peopleNews.on(key, () => {
      write('event: people\ndata: {}\n\n');
      void endIfShutOut().catch(() => response.end());
    }),
    feedbackNews.on(key, () => write('event: feedback\ndata: {}\n\n')),
    answerNews.on(key, () => write('event: answers\ndata: {}\n\n')),
    writingNews.on(key, (writing) => write(`event: writing\ndata: ${JSON.stringify(writing)}\n\n`)),
    presence.news.on(key, sendHere),
    jointTexts.news.on(key, (joint) => write(`event: joint\ndata: ${JSON.stringify(joint)}\n\n`)),
    releaseNews.on(key, (progress) => write(`event: release\ndata: ${JSON.stringify(progress)}\n\n`)),
  ];
  response.on('close', () => {
    stop();
    for (const stopNews of stops) stopNews();
    clearInterval(beat);
    leave();
  });
  for (const edit of await editsAfter(database, key, since)) send(edit);
  for (const edit of waiting) send(edit);
  waiting = null;
}

/** The tab that a stream is for; null where it does not say. */
const tabIn = ({ query }: Request): string | null => {
  const parsed = hereBody.shape.tab.safeParse(query.tab);
  return parsed.success ? parsed.data : null;
};
