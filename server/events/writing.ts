import type { SiteKey } from '#core/model/ids.ts';
import { type WritingNews, writingNews } from '#contract/writing.ts';
import { WRITING_CHANNEL, tell } from '../database/channels.ts';
import type { Database } from '../database/connect.ts';
import type { SiteNews } from './site-news.ts';

/** Tells all processes that somebody writes in a text, or has left it. Nothing of it is kept. */
export const tellWriting = (database: Database, site: SiteKey, news: WritingNews): Promise<unknown> =>
  tell(database, WRITING_CHANNEL, [JSON.stringify({ site, ...news })]);

/** Passes on what another process, or this one, told. */
export function passOnWriting(told: string, news: SiteNews<WritingNews>): void {
  const { site, ...writing } = JSON.parse(told) as WritingNews & { site: SiteKey };
  news.tell(site, writingNews.parse(writing));
}
