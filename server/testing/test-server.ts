import type { PlainAccount } from '../accounts/account-repository.ts';
import { randomBytes } from 'node:crypto';
import type { SiteKey } from '#core/model/ids.ts';
import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { type Server, createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { toSiteKey } from '#core/model/ids.ts';
import type { RoleAt } from '#core/people/powers.ts';
import { roleIdSchema } from '#core/people/role.ts';
import { type Site, makeSite, newSettings } from '#core/model/site.ts';
import type { ReleaseProgress } from '#contract/releases.ts';
import { accountByEmail } from '../accounts/account-repository.ts';
import { makeAccount, plainAccount } from '../accounts/account-service.ts';
import { putColleague, tellPeople } from '../people/people-repository.ts';
import { openSessions } from '../accounts/remembered-sessions.ts';
import { Attempts } from '../security/attempts.ts';
import { makeListener } from '../app.ts';
import type { StoredContent } from '../contents/content-service.ts';
import {
  EDIT_CHANNEL,
  ANSWER_CHANNEL,
  FEEDBACK_CHANNEL,
  PROGRESS_CHANNEL,
  HERE_CHANNEL,
  JOINT_CHANNEL,
  WRITING_CHANNEL,
  SCHEDULE_CHANNEL,
  PEOPLE_CHANNEL,
  SESSION_CHANNEL,
  SITE_CHANNEL,
  TAKEN_CHANNEL,
  VISITORS_SIDE,
} from '../database/channels.ts';
import { type Database, connect, connectPool } from '../database/connect.ts';
import { listen } from '../database/listen.ts';
import { migrate } from '../database/migrate.ts';
import { AccountLinks } from '../accounts/account-links.ts';
import { ColleagueSync } from '../directory/colleague-sync.ts';
import { DirectoryService, NIGHTLY_SYNC } from '../directory/directory-service.ts';
import { DailyMails } from '../talk/daily-mails.ts';
import { ApprovalService } from '../approval/approval-service.ts';
import { People } from '../people/people.ts';
import { EditService } from '../edits/edit-service.ts';
import { Assets } from '../live/assets.ts';
import { makeLiveHandler } from '../live/handler.ts';
import { Visits } from '../live/visits.ts';
import { workbenchNews } from '../live/workbench-news.ts';
import { LiveReading } from '../live/live-reading.ts';
import { LiveSites } from '../live/live-sites.ts';
import { PostgresQueue } from '../jobs/job-queue.ts';
import { CarryOverService } from '../carry-over/carry-over-service.ts';
import { OldTextService } from '../old-site/old-text-service.ts';
import { CrawlService } from '../old-site/crawl-service.ts';
import { type FileStore, FolderStore } from '../library/file-store.ts';
import { LibraryService, PREPARE_FILE } from '../library/library-service.ts';
import { LinkService, NIGHTLY_LINKS } from '../checks/link-service.ts';
import { EngineService } from '../engine/engine-service.ts';
import { ReleaseService } from '../releases/release-service.ts';
import { ScheduleService } from '../releases/schedule-service.ts';
import { copyOfTemplate } from './template-database.ts';
import { passOnProgress } from '../events/release-progress.ts';
import { VisitorsSide } from '../events/visitors-side.ts';
import { SiteNews } from '../events/site-news.ts';
import { makeDirectory } from '../standins/directory.ts';
import { STAND_IN_CLIENT } from '../standins/provider.ts';
import { IdentityProvider } from '../accounts/identity-provider.ts';
import { outbox } from '../standins/outbox-repository.ts';
import { Letters } from '../visitors/letters.ts';
import { VisitorSessions } from '../visitors/visitor-sessions.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { insertSite } from '../sites/site-repository.ts';
import type { WritingNews } from '#contract/writing.ts';
import { passOnAnswer } from '../answers/answer-news.ts';
import { Presence } from '../events/presence.ts';
import { JointTexts } from '../joint/joint-texts.ts';
import { passOnWriting } from '../events/writing.ts';

const PASSWORD = 'a-long-test-password';

/** The answer to a request, with its body read. */
export interface Answer {
  readonly status: number;
  readonly headers: Headers;
  readonly text: string;
  // What an answer holds is what the tests are about.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly json: any;
}

/** A person with a browser's cookie, at one workbench process. */
export class Person {
  readonly account: PlainAccount;
  readonly #origin: string;
  cookie = '';

  constructor(account: PlainAccount, origin: string) {
    this.account = account;
    this.#origin = origin;
  }

  async send(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const response = await fetch(this.#origin + path, {
      method,
      headers: {
        ...(method === 'GET' ? {} : { Origin: this.#origin }),
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(this.cookie && { Cookie: this.cookie }),
        ...headers,
      },
      body:
        body === undefined || typeof body === 'string' || body instanceof Uint8Array
          ? (body as Uint8Array<ArrayBuffer>)
          : JSON.stringify(body),
      redirect: 'manual',
    });
    const set = response.headers.getSetCookie()[0];
    if (set) this.cookie = set.split(';')[0]!;
    return answerOf(response);
  }

  get = (path: string, headers?: Record<string, string>) => this.send('GET', path, undefined, headers);
  post = (path: string, body: unknown, headers?: Record<string, string>) => this.send('POST', path, body, headers);
  sendFile = (path: string, bytes: Uint8Array) =>
    this.send('POST', path, bytes, { 'Content-Type': 'application/octet-stream' });
  operations = (site: string, ...operations: unknown[]) => this.post(`/api/sites/${site}/operations`, { operations });
  signIn = (password = PASSWORD) => this.post('/api/session', { email: this.account.email, password });
}

async function answerOf(response: Response): Promise<Answer> {
  const text = await response.text();
  const isJson = /json/.test(response.headers.get('content-type') ?? '');
  return {
    status: response.status,
    headers: response.headers,
    text,
    json: isJson && text !== '' ? JSON.parse(text) : undefined,
  };
}

export interface TestServer {
  readonly database: Database;
  /** Sends the mails of the morning. */
  readonly dailyMails: DailyMails;
  /** The database's address. */
  readonly url: string;
  readonly origin: string;
  readonly liveOrigin: string;
  /** What answers visitors, and who else is to hear of releases. */
  readonly liveSites: LiveSites;
  /** Where the bytes of files lie. */
  readonly store: FileStore;
  readonly onRelease: ((key: string) => void)[];
  /** The stand-in for a directory. */
  readonly directoryOrigin: string;
  /** A second workbench process on the same database. */
  readonly otherOrigin: string;
  /** One of the two sides once more, as it is where its outside address was named. */
  readonly listenerWith: (side: 'workbench' | 'visitors', ownOrigin: string) => RequestListener;
  /** Somebody who looks after the installation; or, as a `colleague`, somebody with the roles that sites give them. */
  readonly person: (name: string, kind?: 'manager' | 'colleague', origin?: string) => Promise<Person>;
  /** A colleague of a site with a role: on all of it, or on branches. */
  readonly colleague: (
    name: string,
    site: string,
    roles: string | readonly RoleAt[],
    origin?: string,
  ) => Promise<Person>;
  readonly site: (key: string, site?: Site, contents?: StoredContent[]) => Promise<void>;
  readonly live: (path: string, headers?: Record<string, string>) => Promise<Answer>;
  readonly close: () => Promise<void>;
}

const MIGRATIONS = new URL('../database/migrations/', import.meta.url);
/** All migrations as one text: databases of the tests are copied from one that was made by these. */
const migrationsAsWritten = (): string =>
  readdirSync(MIGRATIONS)
    .sort()
    .map((name) => readFileSync(new URL(name, MIGRATIONS), 'utf8'))
    .join('\n');

/**
 * Two workbench processes and the visitors' side, on a database of their own, in this process.
 * @param base the PostgreSQL server that the database is made in
 */
export async function startTestServer(
  crawlHosts: ReadonlySet<string> = new Set(),
  base = process.env.SPUR_TEST_DATABASE,
): Promise<TestServer> {
  if (!base) throw new Error('The tests of the server need PostgreSQL: run them by `npm test -- --project server`.');
  const name = `spur_test_${randomBytes(6).toString('hex')}`;
  const { url, drop } = await copyOfTemplate(base, name, migrationsAsWritten(), async (template) => {
    const empty = connect(template);
    await migrate(empty);
    await empty.destroy();
  });
  const database = connect(url);
  const pool = connectPool(url);
  const ends: (() => Promise<unknown>)[] = [];
  const open = async (server: Server): Promise<string> => {
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    ends.push(async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    });
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  };

  const filesFolder = mkdtempSync(join(tmpdir(), 'spur-files-'));
  ends.push(() => rm(filesFolder, { recursive: true, force: true, maxRetries: 5 }));
  const store = new FolderStore(filesFolder);
  const assets = await Assets.load();
  const log = pino({ level: 'silent' });
  const visits = new Visits(database, log, () => new Date());
  const sites = new LiveSites(new LiveReading(database), 'https://www.example', assets, visits);
  const sessionsOfVisitors = new VisitorSessions(database, () => new Date());
  const attemptsOfVisitors = await Attempts.open(pool);
  const liveHandler = (ownOrigin: string | null) =>
    makeLiveHandler({
      sites,
      sessions: sessionsOfVisitors,
      attempts: attemptsOfVisitors,
      letters: new Letters(database, outbox, () => new Date()),
      assets,
      database,
      store,
      library: new LibraryService({ database, store, now: () => new Date() }),
      mailer: outbox,
      workbenchOrigin: 'https://work.example',
      secret: 'test',
      ownOrigin,
      proxies: [],
      log,
    });
  const liveOrigin = await open(createServer(liveHandler(null)));
  const onRelease: ((key: string) => void)[] = [];
  const news = workbenchNews({
    database,
    sites,
    sessions: sessionsOfVisitors,
    onRelease: (key) => {
      for (const heard of onRelease) heard(key);
    },
    onResync: () => undefined,
  });
  ends.push(await listen(url, news.channels, news.resync, VISITORS_SIDE));

  const directoryOrigin = await open(createServer(makeDirectory(database, 'test')));
  let workbench: (ownOrigin: string | null) => RequestListener;
  const startWorkbench = async () => {
    const cache = new SiteCache(database);
    const now = () => new Date();
    const library = new LibraryService({ database, store, now });
    const crawls = new CrawlService(database, library, now, crawlHosts);
    const directory = new DirectoryService({
      database,
      cache,
      letters: new Letters(database, outbox, now),
      liveOrigin,
      access: { url: `${directoryOrigin}/scim/v2`, token: 'test' },
      now,
    });
    const people = new People(database, cache, now);
    const edits = new EditService(database, cache, people, now);
    const approval = new ApprovalService({
      database,
      cache,
      people,
      edits,
      mailer: outbox,
      origin: 'https://work.example',
      now,
    });
    const accountLinks = new AccountLinks({ database, mailer: outbox, origin: 'https://work.example', now });
    const colleagueSync = new ColleagueSync({ database, cache, people, links: accountLinks, directory, now });
    const releases = new ReleaseService(database, cache, edits, approval);
    const schedule = new ScheduleService(database, cache, releases, now, () => undefined);
    const engine = new EngineService(database, liveOrigin, now);
    const links = new LinkService(database, cache, now, crawlHosts);
    const queue = new PostgresQueue(
      url,
      {
        crawl: crawls.run,
        [engine.look.job]: engine.look.run,
        [links.look.job]: links.look.run,
        [NIGHTLY_LINKS]: () => links.askAtNight(),
        [NIGHTLY_SYNC]: async () => {
          await directory.syncAtNight();
          await colleagueSync.syncAtNight();
        },
        [PREPARE_FILE]: library.prepare,
      },
      (fault) => {
        console.error('Work in the background failed:', fault);
      },
    );
    library.useQueue(queue);
    engine.look.useQueue(queue);
    await links.useQueue(queue);
    await directory.useQueue(queue);
    await colleagueSync.useQueue(queue);
    crawls.useQueue(queue);
    const carryOver = new CarryOverService(database, cache);
    ends.push(
      () => schedule.stop(),
      () => queue.stop(),
      () => carryOver.close(),
    );
    const attempts = await Attempts.open(pool);
    const sessions = openSessions(pool, now);
    const visitorsSide = new VisitorsSide(database);
    const feedbackNews = new SiteNews();
    const peopleNews = new SiteNews();
    const answerNews = new SiteNews();
    const releaseNews = new SiteNews<ReleaseProgress>();
    const writingNews = new SiteNews<WritingNews>();
    const presence = new Presence(now);
    const jointTexts = new JointTexts({ database, cache, people, edits, now }, (fault) =>
      log.warn({ fault }, 'joint text'),
    );
    ends.push(() => jointTexts.close());
    ends.push(
      await listen(
        url,
        {
          [EDIT_CHANNEL]: (told) => void cache.follow(told).catch(() => undefined),
          [SCHEDULE_CHANNEL]: () => void schedule.wake(),
          [SITE_CHANNEL]: (key) => {
            cache.forget(key as SiteKey);
            people.forget(key as SiteKey);
          },
          [PEOPLE_CHANNEL]: (key) => {
            people.forget(key as SiteKey);
            peopleNews.tell(key);
          },
          [SESSION_CHANNEL]: (id) => sessions.end(id),
          [FEEDBACK_CHANNEL]: (key) => feedbackNews.tell(key),
          [ANSWER_CHANNEL]: (told) => passOnAnswer(told, answerNews, library),
          [TAKEN_CHANNEL]: visitorsSide.hear,
          [PROGRESS_CHANNEL]: (told) => passOnProgress(told, releaseNews),
          [WRITING_CHANNEL]: (told) => passOnWriting(told, writingNews),
          [HERE_CHANNEL]: (told) => presence.hear(told),
          [JOINT_CHANNEL]: (told) => jointTexts.hear(told),
        },
        () => {
          sessions.forgetAll();
          people.forgetAll();
        },
      ),
    );
    const parts = {
      database,
      sessions,
      cache,
      people,
      edits,
      releases,
      approval,
      schedule,
      attempts,
      crawls,
      oldTexts: new OldTextService(database, library, crawlHosts),
      crawlHosts,
      carryOver,
      directory,
      colleagueSync,
      identityProvider: new IdentityProvider({
        name: 'the school',
        issuer: `${directoryOrigin}/oidc`,
        clientId: STAND_IN_CLIENT.id,
        secret: STAND_IN_CLIENT.secret,
      }),
      engine,
      links,
      library,
      mailer: outbox,
      feedbackNews,
      peopleNews,
      answerNews,
      releaseNews,
      writingNews,
      presence,
      jointTexts,
      visitorsSide,
      sessionSecret: 'test',
      ownOrigin: null,
      proxies: [],
      origin: 'http://spur.example',
      liveOrigin,
      now,
      log,
      webFolder: null,
      filesFolder,
    };
    workbench = (ownOrigin) => makeListener({ ...parts, ownOrigin });
    return open(createServer(makeListener(parts)));
  };
  const origin = await startWorkbench();
  const otherOrigin = await startWorkbench();

  const personOf: TestServer['person'] = async (personName, kind = 'manager', at = origin) => {
    const email = `${personName.toLowerCase()}@school.example`;
    const given = { name: personName, email, password: PASSWORD, looksAfterAll: kind === 'manager' };
    const account = (await accountByEmail(database, email)) ?? (await makeAccount(database, given, false));
    const person = new Person(plainAccount(account), at);
    await person.signIn();
    return person;
  };

  const cache = new SiteCache(database);
  const dailyMails = new DailyMails({
    database,
    cache,
    people: new People(database, cache, () => new Date()),
    mailer: outbox,
    origin: 'https://work.example',
    now: () => new Date(),
  });
  return {
    database,
    dailyMails,
    url,
    origin,
    liveOrigin,
    liveSites: sites,
    store,
    onRelease,
    directoryOrigin,
    otherOrigin,
    listenerWith: (side, ownOrigin) => (side === 'workbench' ? workbench : liveHandler)(ownOrigin),
    person: personOf,
    colleague: async (name, site, roles, at) => {
      const person = await personOf(name, 'colleague', at);
      const rolesAt = typeof roles === 'string' ? [{ page: null, role: roleIdSchema.parse(roles) }] : roles;
      await database.transaction(async (trx) => {
        await putColleague(trx, toSiteKey(site), person.account.id, rolesAt);
        await tellPeople(trx, toSiteKey(site));
      });
      // Processes hear of it a moment later.
      await until(
        'the process knows of them',
        async () => (await person.get(`/api/sites/${site}/roles/own`)).status === 200,
      );
      return person;
    },
    site: (key, site, contents = []) =>
      insertSite(database, site ?? makeSite(toSiteKey(key), newSettings(key, 'en'), []), null, contents),
    live: async (path, headers = {}) => answerOf(await fetch(liveOrigin + path, { headers, redirect: 'manual' })),
    close: async () => {
      for (const end of ends) await end();
      await pool.end();
      await database.destroy();
      await drop();
    },
  };
}

/** Waits until something holds. @throws after 20 seconds, or as many as are said, with what was waited for. */
export async function until(what: string, holds: () => boolean | Promise<boolean>, longestMs = 20_000): Promise<void> {
  for (const end = Date.now() + longestMs; Date.now() < end;) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 15));
  }
  throw new Error(`Waited ${longestMs / 1000} seconds for this: ${what}.`);
}
