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

/** Brings an answer to whoever made the comment. */
export function reply(
  to: string,
  {
    by,
    site,
    page,
    comment,
    answer,
  }: {
    readonly by: string;
    readonly site: string;
    /** The title of the page that it is about. */
    readonly page: string;
    readonly comment: CommentAnswer;
    readonly answer: string;
  },
): Mail {
  const said = comment.kind === 'question' ? 'You asked' : 'You wrote';
  return {
    to,
    subject: `${by} has answered you about ‘${page}’`,
    text: [
      `Dear ${comment.by},`,
      `${said} about ‘${page}’ in the plan for ${site}:`,
      comment.text.replace(/^/gm, '> '),
      `${by} answers:`,
      answer,
    ].join('\n\n'),
  };
}
