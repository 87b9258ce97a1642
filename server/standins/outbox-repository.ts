import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { MailAnswer } from '#contract/sharing.ts';
import type { Mailer } from '../mail/mailer.ts';

const MAX_SHOWN = 200;

/** The stand-in for a mail server: mails go nowhere, and stay where the managers of sites can read them. */
export const outbox: Mailer = {
  async send(database, mails, at) {
    if (mails.length === 0) return;
    await database('outbox').insert(
      mails.map(({ to, subject, text }) => ({ id: randomUUID(), recipient: to, subject, text, sent_at: at })),
    );
  },
};

/** The latest mails, newest first. */
export async function latestMails(database: Knex): Promise<MailAnswer[]> {
  const rows = await database('outbox').orderBy('sent_at', 'desc').orderBy('id').limit(MAX_SHOWN);
  return rows.map((row) => ({
    id: row.id,
    to: row.recipient,
    subject: row.subject,
    text: row.text,
    at: row.sent_at.toISOString(),
  }));
}
