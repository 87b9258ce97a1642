import { subDays } from 'date-fns';
import { type PageFinding, pageFindings } from '#core/checks/page-checks.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { type Site, branchOf, nodeAt } from '#core/model/site.ts';
import { type Powers, mayAt } from '#core/people/powers.ts';
import { pagesOf, sameName } from '#core/talk/concerned.ts';
import { dueFor } from '#core/talk/due.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { textLinks } from '../checks/link-repository.ts';
import { textFaults } from '../checks/text-fault-repository.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import {
  type Talker,
  editsTo,
  followsOf,
  hasColleagues,
  lastMailed,
  readBy,
  saidTo,
  setMailed,
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
    for (const key of await sitesWithPeople(this.#parts.database)) {
      // The same for all, and looked for where somebody owns pages.
      let found: Promise<readonly PageFinding[]> | null = null;
      for (const talker of await talkersOf(this.#parts.database, key))
        if (talker.mails !== 'never') await this.#sendTo(key, talker, () => (found ??= this.#findings(key)));
    }
  }

  async #findings(key: SiteKey): Promise<readonly PageFinding[]> {
    const { database, cache, now } = this.#parts;
    const { site } = await cache.current(key);
    const [links, faults] = [await textLinks(database, key, 'node'), await textFaults(database, key, 'node')];
    return pageFindings(site, now().getTime(), links, faults);
  }

  /** The mail and up to when it tells are kept in one transaction: who was told is not told again. */
  async #sendTo(key: SiteKey, talker: Talker, findings: () => Promise<readonly PageFinding[]>): Promise<void> {
    const { database, cache, people, mailer, origin, now } = this.#parts;
    const { site } = await cache.current(key);
    await database.transaction(async (trx) => {
      const asOf = now();
      const last = await lastMailed(trx, key, talker.id);
      const earliest = subDays(asOf, MOST_DAYS);
      const since = last !== null && last.until > earliest ? last.until : earliest;
      const isTheirs = this.#isOwnedBy(site, talker, await people.powersOf(key, talker));
      const lacking = branchOf(site, null).some(isTheirs)
        ? (await findings()).filter(({ page }) => isTheirs(page))
        : [];
      const known = new Set([...(last?.findings ?? []), ...(await readBy(trx, key, talker.id))]);
      const news = {
        ...(await this.#newsFor(trx, key, talker, since, asOf)),
        findings: lacking.filter((one) => !known.has(findingName(one))),
      };
      await setMailed(trx, key, talker.id, { until: asOf, findings: lacking.map(findingName) });
      if (isWorthAMail(news, dayIn(site.settings.timeZone, asOf)))
        await mailer.send(trx, [dailyMail(talker.email, { site, origin }, news)], asOf);
    });
  }

  /** Whether a page names somebody as its owner, who may read it. */
  #isOwnedBy(site: Site, { name }: Talker, powers: Powers): (page: PageId) => boolean {
    return (page) => {
      const owner = site.nodes.get(page)?.plan?.owner ?? '';
      return owner !== '' && sameName(owner, name) && mayAt(site, powers, 'read', page);
    };
  }

  async #newsFor(
    trx: Database,
    key: SiteKey,
    talker: Talker,
    since: Date,
    asOf: Date,
  ): Promise<Omit<DailyNews, 'findings'>> {
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

/** The name under which the browser keeps that a finding was read. */
const findingName = ({ page, fault }: PageFinding): string => `finding ${page} ${fault}`;

/** What is due is told with all else, and by itself on the day it is due. */
const isWorthAMail = ({ said, edits, due, findings }: DailyNews, today: string): boolean =>
  said.length + edits.length + findings.length > 0 || due.some((one) => one.due === today);
