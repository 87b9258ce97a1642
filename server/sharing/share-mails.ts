import { proposalWords } from '#core/arrange/proposal.ts';
import type { CommentKind } from '#core/model/feedback.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { CommentAnswer } from '#contract/sharing.ts';
import type { Mail } from '../mail/mailer.ts';

const dayWords = (at: Date): string => at.toLocaleDateString('en-GB', { dateStyle: 'long', timeZone: 'UTC' });

/** Asks somebody to look at a plan. */
export function invitation(
  to: string,
  {
    by,
    site,
    link,
    expiresAt,
    hasPassphrase,
    letter,
  }: {
    readonly by: string;
    readonly site: string;
    readonly link: string;
    readonly expiresAt: Date;
    readonly hasPassphrase: boolean;
    readonly letter: string;
  },
): Mail {
  return {
    to,
    subject: `${by} asks what you think of the plan for ${site}`,
    text: [
      letter || `${by} would like to know what you think of the pages that are planned for ${site}.`,
      `Look at the plan: ${link}`,
      `You need no account. For each page, say whether you agree, want a change or are unsure, and what should be different. The link works until ${dayWords(expiresAt)}.`,
      ...(hasPassphrase ? [`It asks for a passphrase, which ${by} will send you separately.`] : []),
    ].join('\n\n'),
  };
}

/** What mails to a guest say of something that they said. */
interface Answered {
  readonly by: string;
  readonly site: Site;
  readonly comment: CommentAnswer;
}

const SAID: Readonly<Record<CommentKind, string>> = {
  comment: 'You wrote',
  question: 'You asked',
  proposal: 'You made a proposal',
};

/** Brings an answer to whoever made the comment. */
export function reply(to: string, { by, site, comment, answer }: Answered & { readonly answer: string }): Mail {
  const page = titleOf(site, comment);
  return {
    to,
    subject: `${by} has answered you about ‘${page}’`,
    text: [
      `Dear ${comment.by},`,
      `${SAID[comment.kind]} about ‘${page}’ in the plan for ${site.settings.name}:`,
      saidWords(site, comment),
      `${by} answers:`,
      answer,
    ].join('\n\n'),
  };
}

/** Tells whoever made a proposal that the page is so now. @param site as it was before */
export function acceptance(to: string, { by, site, comment }: Answered): Mail {
  const page = titleOf(site, comment);
  return {
    to,
    subject: `${by} has accepted your proposal for ‘${page}’`,
    text: [
      `Dear ${comment.by},`,
      `${SAID.proposal} about ‘${page}’ in the plan for ${site.settings.name}:`,
      saidWords(site, comment),
      `${by} has accepted it, and the plan is so now.`,
    ].join('\n\n'),
  };
}

const titleOf = (site: Site, { page, about }: CommentAnswer): string => {
  if (page !== null) return textIn(maybeNodeAt(site, page)?.title ?? {}, site.settings.language) || 'a removed page';
  const board = site.boards.find(({ id }) => about !== null && 'board' in about && id === about.board);
  return board?.name ?? 'a removed board';
};

/** What the guest said, as a quotation. */
const saidWords = (site: Site, { text, proposes }: CommentAnswer): string =>
  [proposes ? proposalWords(site, proposes) : '', text]
    .filter((part) => part !== '')
    .join('\n')
    .replace(/^/gm, '> ');
