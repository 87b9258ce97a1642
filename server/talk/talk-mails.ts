import { PAGE_CHECKS, type PageFinding } from '#core/checks/page-checks.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import type { DuePage } from '#core/talk/due.ts';
import type { ConcernKind } from '#core/talk/thread.ts';
import type { EditConcern, SaidConcern } from '#contract/talk.ts';
import type { Mail } from '../mail/mailer.ts';

const DID: Readonly<Record<ConcernKind, string>> = {
  mention: 'mentioned you on',
  review: 'asks for your approval of',
  returned: 'returned',
  approved: 'approved',
  answer: 'answered on',
  comment: 'commented on',
  'handed over': 'hands over to you what is said of',
};

interface At {
  readonly site: Site;
  /** Where the workbench is. */
  readonly origin: string;
}

const titleOf = (site: Site, page: PageId): string =>
  textIn(maybeNodeAt(site, page)?.title ?? {}, site.settings.language) || 'a page that is no longer there';

const linkTo = ({ site, origin }: At, page: PageId): string =>
  `${origin}/sites/${site.key}?page=${page}&beside=for-you`;

const footOf = ({ site, origin }: At): string =>
  `You get this because you work on ${site.settings.name}. What you get by mail you choose under ‘For you’: ${origin}/sites/${site.key}?beside=for-you`;

/** Tells somebody at once of something that was said. */
export function concernMail(
  to: string,
  at: At & { readonly by: string; readonly page: PageId; readonly kind: ConcernKind; readonly words: string },
): Mail {
  return {
    to,
    subject: `${at.by} ${DID[at.kind]} ‘${titleOf(at.site, at.page)}’`,
    text: [at.words.replace(/^/gm, '> '), linkTo(at, at.page), footOf(at)].join('\n\n'),
  };
}

/** Tells somebody at once that conversations are theirs from now on. @param pages those that they are about, each once */
export function handedOverMail(
  to: string,
  at: At & { readonly from: string; readonly count: number; readonly pages: readonly PageId[] },
): Mail {
  const { site, origin, from, count, pages } = at;
  const what = count === 1 ? 'a conversation' : `${count} conversations`;
  return {
    to,
    subject: `${from} hands over to you ${what} on ${site.settings.name}`,
    text: [
      ...listed(
        'They are about',
        pages.map((page) => `‘${titleOf(site, page)}’`),
      ),
      `${origin}/sites/${site.key}?beside=for-you`,
      footOf(at),
    ].join('\n\n'),
  };
}

export interface DailyNews {
  readonly said: readonly SaidConcern[];
  readonly edits: readonly EditConcern[];
  readonly due: readonly DuePage[];
  /** What their pages lack since the last mail. */
  readonly findings: readonly PageFinding[];
}

/** Tells somebody once a day of all that is new. */
export function dailyMail(to: string, at: At, { said, edits, due, findings }: DailyNews): Mail {
  const parts = [
    ...listed(
      'What was said',
      said.map((one) => `${one.by} ${DID[one.kind]} ‘${titleOf(at.site, one.page)}’: ${one.words}`),
    ),
    ...listed(
      'What others changed on your pages',
      edits.map((one) => `‘${titleOf(at.site, one.page)}’, by ${one.by.join(', ')}: ${one.words}`),
    ),
    ...listed(
      'Your pages that are due',
      due.map((one) => `‘${titleOf(at.site, one.page)}’, due on ${one.due}`),
    ),
    ...listed(
      'What your pages lack',
      findings.map(({ page, fault, other }) => {
        const { called, words } = PAGE_CHECKS[fault];
        return `‘${titleOf(at.site, page)}’: ${called}. ${words(other === null ? null : titleOf(at.site, other))}`;
      }),
    ),
  ];
  const count = said.length + edits.length + due.length + findings.length;
  return {
    to,
    subject: `${at.site.settings.name}: ${count === 1 ? 'one thing concerns' : `${count} things concern`} you`,
    text: [...parts, `${at.origin}/sites/${at.site.key}?beside=for-you`, footOf(at)].join('\n\n'),
  };
}

/** At most so many of each are named. */
const MAX_NAMED = 30;

function listed(heading: string, lines: readonly string[]): string[] {
  if (lines.length === 0) return [];
  const named = lines.slice(0, MAX_NAMED).map((line) => `- ${line.replace(/\s+/g, ' ')}`);
  const more = lines.length > MAX_NAMED ? [`- and ${lines.length - MAX_NAMED} more`] : [];
  return [[`${heading}:`, ...named, ...more].join('\n')];
}
