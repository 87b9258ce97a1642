import type { SiteNews } from '../events/site-news.ts';
import type { LibraryService } from '../library/library-service.ts';

/** Tells those who look at a site that an answer has come, and prepares the files that came with it. */
export function passOnAnswer(told: string, news: SiteNews, library: LibraryService): void {
  const [site = '', files] = told.split(' ');
  news.tell(site);
  if (files === 'files') void library.takeUp().catch(() => undefined);
}
