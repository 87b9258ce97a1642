import type { Database } from '../database/connect.ts';

export interface Mail {
  readonly to: string;
  readonly subject: string;
  /** Plain text, its paragraphs parted by empty lines. */
  readonly text: string;
}

/** Takes mails to be sent, within a transaction: what is rolled back is not sent. */
export interface Mailer {
  send(database: Database, mails: readonly Mail[], at: Date): Promise<void>;
}
