import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { loadDemo } from '#demo/load-demo.ts';
import { FORMER_SITE, formerFiles, formerHtml } from '#demo/old-site.ts';
import { hasDemoAccounts } from './accounts/account-repository.ts';
import { offerFirstAccount } from './accounts/account-service.ts';
import { Attempts } from './security/attempts.ts';
import { openSessions } from './accounts/remembered-sessions.ts';
import { makeListener } from './app.ts';
import { readConfig } from './config.ts';
import type { ReleaseProgress } from '#contract/releases.ts';
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
} from './database/channels.ts';
import { connect, connectPool } from './database/connect.ts';
import { listen } from './database/listen.ts';
import { migrate } from './database/migrate.ts';
import { sessionSecret } from './database/session-secret.ts';
import { AccountLinks } from './accounts/account-links.ts';
import { ColleagueSync } from './directory/colleague-sync.ts';
import { DirectoryService, NIGHTLY_SYNC } from './directory/directory-service.ts';
import { DAILY_MAILS, DailyMails } from './talk/daily-mails.ts';
import { ApprovalService } from './approval/approval-service.ts';
import { TalkService } from './talk/talk-service.ts';
import { People } from './people/people.ts';
import { EditService } from './edits/edit-service.ts';
import { PostgresQueue } from './jobs/job-queue.ts';
import { OldTextService } from './old-site/old-text-service.ts';
import { CrawlService } from './old-site/crawl-service.ts';
import { runProcess } from './process.ts';
import { storeOf } from './library/store-of.ts';
import { FolderStore } from './library/file-store.ts';
import { LibraryService, PREPARE_FILE } from './library/library-service.ts';
import { LinkService, NIGHTLY_LINKS } from './checks/link-service.ts';
import { EngineService } from './engine/engine-service.ts';
import { passOnProgress } from './events/release-progress.ts';
import { ReleaseService } from './releases/release-service.ts';
import { ScheduleService } from './releases/schedule-service.ts';
import { VisitorsSide } from './events/visitors-side.ts';
import { SiteNews } from './events/site-news.ts';
import { serveDirectory } from './standins/directory.ts';
import { STAND_IN_CLIENT } from './standins/provider.ts';
import { IdentityProvider } from './accounts/identity-provider.ts';
import { serveFormerSite } from './standins/former-site.ts';
import { outbox } from './standins/outbox-repository.ts';
import { CarryOverService } from './carry-over/carry-over-service.ts';
import { settleReservedSlugs } from './sites/settle-reserved-slugs.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { deleteOldAnswers } from './answers/answer-repository.ts';
import { eraseOldSites } from './sites/deleted-site-repository.ts';
import { LOOK_EVERY_MS, SiteCache } from './sites/site-cache.ts';
import { Letters } from './visitors/letters.ts';
import type { WritingNews } from '#contract/writing.ts';
import { passOnAnswer } from './answers/answer-news.ts';
import { Presence } from './events/presence.ts';
import { JointTexts } from './joint/joint-texts.ts';
import { passOnWriting } from './events/writing.ts';

/** So often it is looked for sites that were deleted long enough ago, and for answers that were kept long enough. */
const ERASE_EVERY_MS = 3_600_000;

/** The workbench's process: migrations, demo data, the API and the interface. */
await runProcess('workbench', async (ready) => {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const database = connect(config.databaseUrl);
  await migrate(database);
  const pool = connectPool(config.databaseUrl);
  const cache = new SiteCache(database);
  const now = () => new Date();
  const people = new People(database, cache, now);
  const edits = new EditService(database, cache, people, now);
  const approval = new ApprovalService({ database, cache, people, edits, mailer: outbox, origin: config.origin, now });
  const releases = new ReleaseService(database, cache, edits, approval);
  const schedule = new ScheduleService(database, cache, releases, now, (fault) =>
    log.warn({ err: fault }, 'a scheduled release could not be made'),
  );
  const store = await storeOf(config);
  // It looks through all files: nobody waits for it.
  void new FolderStore(config.filesFolder)
    .clear(Date.now())
    .catch((fault: unknown) => log.warn({ err: fault }, 'the store could not be cleared'));
  const library = new LibraryService({ database, store, now });
  const formerSite = config.withDemo
    ? await serveFormerSite(
        FORMER_SITE.map(({ path }, at) => ({ path, html: formerHtml(FORMER_SITE[at]!) })),
        config.oldSitePort,
        await formerFiles(),
      )
    : null;
  const formerOrigin = `http://127.0.0.1:${config.oldSitePort}`;
  if (config.withDemo) {
    // What people of the demo say to each other goes to nobody's mail.
    const parts = { database, cache, people, edits, mailer: { send: async () => {} }, origin: '', now };
    const demo = { edits, releases, library, talk: new TalkService(parts), approval: new ApprovalService(parts) };
    await loadDemo(database, demo, formerOrigin);
  }
  await settleReservedSlugs(database, edits);
  const crawlHosts = new Set([...config.crawlHosts, ...(formerSite ? [`127.0.0.1:${config.oldSitePort}`] : [])]);
  const crawls = new CrawlService(database, library, now, crawlHosts);
  const standIn =
    config.withDemo && config.directory === null ? { token: randomBytes(24).toString('base64url') } : null;
  const standInServer = standIn && (await serveDirectory(database, standIn.token, config.directoryPort));
  const providerAccess =
    config.identityProvider ??
    (standIn && {
      name: 'the school’s account',
      issuer: `http://127.0.0.1:${config.directoryPort}/oidc`,
      clientId: STAND_IN_CLIENT.id,
      secret: STAND_IN_CLIENT.secret,
    });
  const directory = new DirectoryService({
    database,
    cache,
    letters: new Letters(database, outbox, now),
    liveOrigin: config.liveOrigin,
    access: standIn
      ? { url: `http://127.0.0.1:${config.directoryPort}/scim/v2`, token: standIn.token }
      : config.directory,
    now,
  });
  const accountLinks = new AccountLinks({ database, mailer: outbox, origin: config.origin, now });
  const colleagueSync = new ColleagueSync({ database, cache, people, links: accountLinks, directory, now });
  const engine = new EngineService(database, config.liveOrigin, now);
  const dailyMails = new DailyMails({ database, cache, people, mailer: outbox, origin: config.origin, now });
  const links = new LinkService(database, cache, now, crawlHosts);
  const queue = new PostgresQueue(
    config.databaseUrl,
    {
      crawl: crawls.run,
      [engine.look.job]: engine.look.run,
      [links.look.job]: links.look.run,
      [NIGHTLY_LINKS]: () => links.askAtNight(),
      [NIGHTLY_SYNC]: async () => {
        await directory.syncAtNight();
        await colleagueSync.syncAtNight();
      },
      [DAILY_MAILS]: () => dailyMails.send(),
      [PREPARE_FILE]: library.prepare,
    },
    (fault) => log.warn({ fault }, 'a job failed'),
  );
  library.useQueue(queue);
  engine.look.useQueue(queue);
  await links.useQueue(queue);
  await directory.useQueue(queue);
  await colleagueSync.useQueue(queue);
  await dailyMails.useQueue(queue);
  crawls.useQueue(queue);
  await crawls.takeUp();
  await library.takeUp();
  const carryOver = new CarryOverService(database, cache);

  const visitorsSide = new VisitorsSide(database);
  const feedbackNews = new SiteNews();
  const peopleNews = new SiteNews();
  const answerNews = new SiteNews();
  const releaseNews = new SiteNews<ReleaseProgress>();
  const writingNews = new SiteNews<WritingNews>();
  const presence = new Presence(now);
  const sessions = openSessions(pool, now);
  const warn = (fault: unknown) => log.warn({ fault }, 'could not follow an edit');
  const jointTexts = new JointTexts({ database, cache, people, edits, now }, warn);
  const stopListening = await listen(
    config.databaseUrl,
    {
      [EDIT_CHANNEL]: (told) => void cache.follow(told).catch(warn),
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
      void schedule.wake();
      void cache.followAll().catch(warn);
    },
  );

  void schedule.wake();
  const looking = setInterval(() => {
    cache.dropUnused();
    void cache.followAll().catch(warn);
  }, LOOK_EVERY_MS);
  const erase = () => {
    void eraseOldSites(database, now()).catch(warn);
    void deleteOldAnswers(database, now()).catch(warn);
    void jointTexts.forgetQuiet().catch(warn);
  };
  erase();
  const erasing = setInterval(erase, ERASE_EVERY_MS);

  const webFolder = fileURLToPath(new URL('../web', import.meta.url));
  const secret = await sessionSecret(database);
  const listener = makeListener({
    database,
    sessions,
    cache,
    people,
    edits,
    releases,
    approval,
    schedule,
    crawls,
    oldTexts: new OldTextService(database, library, crawlHosts),
    crawlHosts,
    carryOver,
    directory,
    colleagueSync,
    identityProvider: providerAccess && new IdentityProvider(providerAccess),
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
    attempts: await Attempts.open(pool),
    sessionSecret: secret,
    ownOrigin: config.ownOrigin,
    origin: config.origin,
    proxies: config.proxies,
    liveOrigin: config.liveOrigin,
    now,
    log,
    filesFolder: config.filesFolder,
    webFolder: existsSync(webFolder) ? webFolder : null,
  });
  const server = createServer(listener);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  ready({
    port: config.port,
    firstAccountToken: await offerFirstAccount(database, now()),
    hasDemoAccounts: await hasDemoAccounts(database),
  });

  return async () => {
    server.close();
    server.closeAllConnections();
    formerSite?.close();
    standInServer?.close();
    clearInterval(looking);
    clearInterval(erasing);
    await jointTexts.close();
    await schedule.stop();
    await queue.stop();
    await carryOver.close();
    await stopListening();
    await database.destroy();
    await pool.end();
  };
});
