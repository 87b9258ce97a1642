import { HTML, NO_INDEX, NO_STORE } from './answer-headers.ts';
import type { Release } from './live-repository.ts';
import type { LiveView } from './live-view.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { renderWorks } from './render-page.ts';

/** Where nobody says until when a site is closed, robots are asked to come again after so long. */
const USUAL_WORKS_SECONDS = 3600;

/**
 * What visitors get wherever they go while the site is closed for works (RFC 9110, 15.6.4); undefined while it is open.
 * @param view what anybody has @param now in milliseconds since 1970
 */
export function worksPage({ works }: Release, view: LiveView, now: number): ReadyAnswer | undefined {
  if (!works) return undefined;
  const until = works.until === null ? null : new Date(works.until);
  const seconds = until === null ? USUAL_WORKS_SECONDS : Math.ceil((until.getTime() - now) / 1000);
  return new ReadyAnswer(503, HTML, renderWorks(view, works.words, until).text, [
    ...NO_STORE,
    ...NO_INDEX,
    'Retry-After',
    String(Math.max(60, seconds)),
  ]);
}
