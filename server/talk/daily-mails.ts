import { subDays } from 'date-fns';
import { dayIn } from '#core/model/moment-words.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { mayAt } from '#core/people/powers.ts';
import { pagesOf } from '#core/talk/concerned.ts';
import { dueFor } from '#core/talk/due.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import {
  type Talker,
  editsTo,
  followsOf,
  hasColleagues,
  mailedUntil,
  saidTo,
  setMailedUntil,
  sitesWithPeople,
  talkersOf,
} from './concern-repository.ts';
import type { TellingParts } from './tell-concerned.ts';
import { type DailyNews, dailyMail } from './talk-mails.ts';

/** The name of the work in the queue, and when it is done: at six in the morning, by UTC. */
export const DAILY_MAILS = 'daily-mails';
const IN_THE_MORNING = '0 6 * * *';
/** What is older is no news, should no mails have been sent for a while. */
const MOST_DAYS = 3;

/** The mails of each morning: one for each site and person, where there is something new for them. */
export class DailyMails {
  readonly #parts: TellingParts;

  constructor(parts: TellingParts) {
    this.#parts = parts;
  }

  /** Where several people work on a site, this queue sends them from now on. */
  async useQueue(queue: JobQueue): Promise<void> {
    if (await hasColleagues(this.#parts.database)) await queue.repeat(DAILY_MAILS, IN_THE_MORNING);
  }

  async send(): Promise<void> {
    for (const key of await sitesWithPeople(this.#parts.database))
      for (const talker of await talkersOf(this.#parts.database, key))
        if (talker.mails !== 'never') await this.#sendTo(key, talker);
  }

  /** The mail and up to when it tells are kept in one transaction: who was told is not told again. */
  async #sendTo(key: SiteKey, talker: Talker): Promise<void> {
    const { database, cache, mailer, origin, now } = this.#parts;
    const { site } = await cache.current(key);
    await database.transaction(async (trx) => {
      const asOf = now();
      const last = await mailedUntil(trx, key, talker.id);
      const earliest = subDays(asOf, MOST_DAYS);
      const since = last !== null && last > earliest ? last : earliest;
      const news = await this.#newsFor(trx, key, talker, since, asOf);
      await setMailedUntil(trx, key, talker.id, asOf);
      if (isWorthAMail(news, dayIn(site.settings.timeZone, asOf)))
        await mailer.send(trx, [dailyMail(talker.email, { site, origin }, news)], asOf);
    });
  }

  async #newsFor(trx: Database, key: SiteKey, talker: Talker, since: Date, asOf: Date): Promise<DailyNews> {
    const { cache, people } = this.#parts;
    const { site } = await cache.current(key);
    const powers = await people.powersOf(key, talker);
    const own = pagesOf(site, talker.name, await followsOf(trx, key, talker.id), since.toISOString());
    // Who hears at once of what is said has heard of it.
    const said = talker.mails === 'daily' ? await saidTo(trx, key, talker.id, since) : [];
    return {
      said: said.filter(({ page, isRead }) => !isRead && site.nodes.has(page) && mayAt(site, powers, 'read', page)),
      edits: (await editsTo(trx, key, talker.id, own)).filter(({ isRead }) => !isRead),
      due: dueFor(
        branchOf(site, null).map((page) => nodeAt(site, page)),
        talker.name,
        dayIn(site.settings.timeZone, asOf),
      ),
    };
  }
}

/** What is due is told with all else, and by itself on the day it is due. */
const isWorthAMail = ({ said, edits, due }: DailyNews, today: string): boolean =>
  said.length + edits.length > 0 || due.some((one) => one.due === today);
