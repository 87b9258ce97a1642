import type { Site } from '#core/model/site.ts';
import type { ConcernKind } from '#core/talk/thread.ts';
import type { Database } from '../database/connect.ts';
import type { Mailer } from '../mail/mailer.ts';
import type { People } from '../people/people.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { type Talker, type Told, insertConcerns } from './concern-repository.ts';
import { concernMail } from './talk-mails.ts';

/** What is needed wherever colleagues are told of something. */
export interface TellingParts {
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly mailer: Mailer;
  /** Where links to the workbench lead. */
  readonly origin: string;
  readonly now: () => Date;
}

/** Keeps what concerns whom, and tells those by mail who want to hear at once, within one transaction. @param words those of the mail */
export async function tellConcerned(
  trx: Database,
  { mailer, origin }: Pick<TellingParts, 'mailer' | 'origin'>,
  site: Site,
  told: Omit<Told, 'site'>,
  words: string,
  concerned: readonly (Talker & { readonly kind: ConcernKind })[],
  at: Date,
): Promise<void> {
  const { page, by_name: by } = told;
  await insertConcerns(trx, { ...told, site: site.key }, new Map(concerned.map(({ id, kind }) => [id, kind])), at);
  const mails = concerned
    .filter((one) => one.mails === 'at-once')
    .map(({ email, kind }) => concernMail(email, { site, origin, by, page, kind, words }));
  await mailer.send(trx, mails, at);
}
