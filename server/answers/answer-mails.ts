import type { Said } from '#core/forms/answer.ts';
import type { SiteForm } from '#core/model/site-form.ts';
import type { Mail } from '../mail/mailer.ts';

/** A mail has at most so much of what was answered; the rest is where all of it is. */
const MAX_QUOTED_LENGTH = 20_000;

/** Tells those who look after a form of an answer. Nothing that a visitor wrote stands in its header. */
export function answerMails(
  { name, mailTo, areMailsWhole }: SiteForm,
  { site, said, link }: { readonly site: string; readonly said: readonly Said[]; readonly link: string },
): Mail[] {
  const quoted = said.map((one) => `${one.name}:\n${indented(one.words)}`).join('\n\n');
  const whole =
    quoted.length > MAX_QUOTED_LENGTH ? `${quoted.slice(0, MAX_QUOTED_LENGTH)} …\n\nThe rest is in Spur.` : quoted;
  return mailTo.map((to) => ({
    to,
    subject: oneLine(`New answer: ${name} (${site})`),
    text: [
      `Somebody has filled in the form ‘${oneLine(name)}’ on ${oneLine(site)}.`,
      ...(areMailsWhole ? [whole] : []),
      `All answers, with their state and notes: ${link}`,
    ].join('\n\n'),
  }));
}

const oneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ').trim();
/** Each line behind a margin, so that nothing that was written passes for a line of the mail itself. */
const indented = (text: string): string =>
  text
    .split(/\r\n|\r|\n|\p{Zl}|\p{Zp}/u)
    .map((line) => `    ${line.replace(/\p{Cc}/gu, ' ')}`)
    .join('\n');
