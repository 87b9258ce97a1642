import type { AudienceId } from '#core/model/audience.ts';
import type { PassphraseId } from '#core/model/access.ts';
import { type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import type { FormId } from '#core/model/site-form.ts';
import { sessionSecret } from '../database/session-secret.ts';
import { ANYBODY, type Asking } from './asking.ts';
import type { FoundFile } from './file-answers.ts';
import type { PostedForm } from './given-answer.ts';
import type { LiveReading } from './live-reading.ts';
import { type Release, liveSiteKeys, loadRelease, loadReleaseAfter } from './live-repository.ts';
import type { Assets } from './assets.ts';
import { LiveSite, type Moved, type PlainPage } from './live-site.ts';
import type { LiveView } from './live-view.ts';
import { robotsFile } from './machine-files.ts';
import type { Preview } from './preview-picture.ts';
import { ReadyAnswer } from './ready-answer.ts';
import type { SignIn } from './render-page.ts';
import type { TakenForm } from './take-form.ts';
import type { Visits } from './visits.ts';

/** At most so many sites are kept in memory: beyond that one makes room that was not asked for lately. */
const MAX_SITES = 200;

/** So long at most a new release waits for the pages to be ready that visitors had asked for. */
const MAX_PREPARING_MS = 5000;

/**
 * The live sites by key, each as its latest release has it:
 *
 *   unknown ── asked for ──▶ read ── a release ──▶ read, the next one being prepared ──▶ read
 *      ▲                       │
 *      └── not asked for ──────┘
 *
 * While the next one is prepared visitors get what they had; then all of the new one, at once. One that takes a page from somebody does
 * not wait.
 */
export class LiveSites {
  readonly #reading: LiveReading;
  readonly origin: string;
  readonly #assets: Assets;
  readonly #visits: Visits;
  readonly #now: () => number;
  readonly #mostSites: number;
  readonly #sites = new Map<string, Promise<LiveSite | undefined>>();
  readonly #ready = new Map<string, LiveSite>();
  readonly #renewals = new Map<string, Promise<void>>();
  /** Sites of which a release was heard while another one was prepared. */
  readonly #again = new Set<string>();
  #robots: Promise<ReadyAnswer> | null = null;
  #secret: Promise<string> | null = null;

  constructor(
    reading: LiveReading,
    origin: string,
    assets: Assets,
    visits: Visits,
    now = () => Date.now(),
    mostSites = MAX_SITES,
  ) {
    this.#mostSites = mostSites;
    this.#reading = reading;
    this.origin = origin;
    this.#assets = assets;
    this.#visits = visits;
    this.#now = now;
  }

  /** The answer to a path (with any query taken off), if it is ready in memory. */
  ready(path: string, asking: Asking = ANYBODY): ReadyAnswer | undefined {
    const end = path.indexOf('/', 1);
    if (end === -1) return undefined;
    const live = this.#ready.get(path.slice(1, end));
    if (!live) return undefined;
    live.wasAsked = true;
    return live.ready(path, asking);
  }

  /** Takes over the release of a site that is live now, or whether it is closed for works; one that nobody has asked for is read when somebody does. */
  renew(key: string): void {
    this.#reading.heard();
    this.#robots = null;
    if (this.#renewals.has(key)) return void this.#again.add(key);
    const before = this.#ready.get(key);
    if (!before) return void this.#sites.delete(key);
    const renewal = this.#takeOver(key, before).finally(() => {
      this.#renewals.delete(key);
      if (this.#again.delete(key)) this.renew(key);
    });
    this.#renewals.set(key, renewal);
  }

  /** Waits until visitors get what was heard of a site before this call. */
  async renewed(key: string): Promise<void> {
    while (this.#renewals.has(key)) await this.#renewals.get(key);
  }

  renewAll(): void {
    this.#reading.heard();
    for (const key of [...this.#sites.keys()]) this.renew(key);
    this.#robots = null;
  }

  /** Forgets the sites that nobody has asked for since it was called before; whoever asks for one has it read again. */
  forgetUnasked(): void {
    for (const [key, live] of this.#ready) this.#pass(key, live);
  }

  /** Forgets a site that was not asked for since it was last passed. */
  #pass(key: string, live: LiveSite): void {
    if (!live.wasAsked && !this.#renewals.has(key)) {
      this.#ready.delete(key);
      this.#sites.delete(key);
    }
    live.wasAsked = false;
  }

  #makeRoom(): void {
    // Each one is passed twice at most: what was asked for meanwhile has a second chance.
    for (let round = 0; round < 2; round++)
      for (const [key, live] of this.#ready) {
        if (this.#ready.size < this.#mostSites) return;
        this.#pass(key, live);
      }
  }

  async #takeOver(key: string, before: LiveSite): Promise<void> {
    try {
      const next = await this.#reading.read((database) => loadReleaseAfter(database, before.release));
      const live = next && this.#siteOf(next);
      if (live) live.wasAsked = before.wasAsked;
      const mayWait = live && !live.release.works && !before.release.works && !live.closesPages(before);
      // What changed of files stands in pages that no release has touched.
      if (mayWait && live.hasFilesOf(before)) await live.prepare(before, MAX_PREPARING_MS);
      if (!live) throw new Error('Nothing of it is live any more.');
      this.#sites.set(key, Promise.resolve(live));
      this.#ready.set(key, live);
    } catch {
      // The next request reads it, and says what is wrong.
      this.#sites.delete(key);
      this.#ready.delete(key);
    }
  }

  /** The sites that have something live. */
  keys(): Promise<SiteKey[]> {
    return this.#reading.read(liveSiteKeys);
  }

  /** What nobody who is known gets of a site, by the latest release that was heard of; undefined where there is no such site, or it is closed for works. */
  async forEveryone(key: string): Promise<{ release: Release; view: LiveView } | undefined> {
    await this.renewed(key);
    const live = await this.#site(key);
    if (!live || live.release.works) return undefined;
    return { release: live.release, view: live.view(ANYBODY) };
  }

  robots(): Promise<ReadyAnswer> {
    const made = (this.#robots ??= this.#openKeys().then(
      (keys) => new ReadyAnswer(200, 'text/plain; charset=utf-8', robotsFile(this.origin, keys)),
    ));
    made.catch(() => (this.#robots = null));
    return made;
  }

  /** The sites that are open, and offer a page to search engines: of others nobody is to know. */
  async #openKeys(): Promise<SiteKey[]> {
    const open: SiteKey[] = [];
    for (const key of await this.keys()) {
      const there = await this.forEveryone(key);
      if (there?.view.offered.includes(1)) open.push(key);
    }
    return open;
  }

  /** The answer to a path below a site, as `LiveSite.answer` gives it; undefined where there is no such site. */
  async answer(
    key: string,
    rest: string,
    query = '',
    asking: Asking = ANYBODY,
    referrer?: string,
  ): Promise<ReadyAnswer | Moved | undefined> {
    return (await this.#asked(key))?.answer(rest, query, asking, referrer);
  }

  /** A file of the site, where whoever asks may have it; undefined else, and while the site is closed. */
  async file(key: SiteKey, content: string, asking: Asking): Promise<FoundFile | undefined> {
    return (await this.#asked(key))?.file(content, asking);
  }

  /** Holds a form that was sent against what visitors have, as `LiveSite.takeForm` does. */
  async takeForm(
    key: SiteKey,
    form: FormId,
    posted: PostedForm,
    asking: Asking,
    tooMany: number | null,
  ): Promise<TakenForm | undefined> {
    return (await this.#asked(key))?.takeForm(form, posted, asking, tooMany);
  }

  /** The sign-in page; undefined where there is no such site. */
  async signInPage(key: string, asking: Asking, given: Omit<SignIn, 'page'>): Promise<ReadyAnswer | undefined> {
    return (await this.#asked(key))?.signInPage(asking, given);
  }

  /** The passphrase that a visitor is to give next for the page at an address; null where they are asked for none. */
  async passphraseAt(key: SiteKey, asking: Asking, address: string): Promise<PassphraseId | null> {
    const site = await this.#asked(key);
    return site?.passphraseAt(asking, address) ?? null;
  }

  /** The form for the passphrase of the page at an address, for somebody who gave a wrong one; undefined where none is asked for. */
  async askAgain(key: SiteKey, asking: Asking, address: string): Promise<ReadyAnswer | undefined> {
    const site = await this.#asked(key);
    return site?.askAgain(asking, address);
  }

  /** What visitors get wherever they go while the site is closed for works; undefined while it is open. */
  async closed(key: string): Promise<ReadyAnswer | undefined> {
    return (await this.#asked(key))?.closed();
  }

  /** The stylesheet of a site at a path below it; the one of now where that is of an earlier look. Undefined where there is no such site. */
  async sheet(key: string, path: string): Promise<ReadyAnswer | undefined> {
    const site = await this.#asked(key);
    if (!site) return undefined;
    const sheet = this.#assets.sheetOf(site.release.site.settings.look);
    return path === sheet.path ? sheet.answer : sheet.renewed;
  }

  /** What the preview picture of a page is made of; undefined where there is none. */
  async preview(key: string, page: string): Promise<Preview | undefined> {
    return (await this.#asked(key))?.preview(page);
  }

  /** The name of a site that is live, and the language that it is in. */
  async named(key: SiteKey): Promise<{ readonly name: string; readonly language: string } | undefined> {
    return (await this.#asked(key))?.release.site.settings;
  }

  /** What an audience of a site is called; undefined where there is none. */
  async audienceName(key: SiteKey, audience: AudienceId): Promise<string | undefined> {
    return (await this.#asked(key))?.release.site.settings.audiences.find(({ id }) => id === audience)?.name;
  }

  /** Where somebody goes on to after signing in. */
  async landing(key: SiteKey, audiences: readonly AudienceId[]): Promise<string> {
    return (await this.#asked(key))?.landing(audiences) ?? '/';
  }

  /** A page that is not in the tree, in the frame that whoever asks has. */
  async plainPage(key: string, asking: Asking, page: PlainPage): Promise<ReadyAnswer | undefined> {
    return (await this.#asked(key))?.plainPage(asking, page);
  }

  /** A site that a visitor asks for, which keeps it in memory. */
  async #asked(key: string): Promise<LiveSite | undefined> {
    const live = await this.#site(key);
    if (live) live.wasAsked = true;
    return live;
  }

  #site(key: string): Promise<LiveSite | undefined> {
    const parsed = siteKeySchema.safeParse(key);
    if (!parsed.success) return Promise.resolve(undefined);
    const known = this.#sites.get(key);
    if (known) return known;
    const loading = this.#load(parsed.data);
    this.#sites.set(key, loading);
    loading.then(
      (live) => {
        if (this.#sites.get(key) !== loading) return;
        if (!live) return void this.#sites.delete(key);
        this.#makeRoom();
        this.#ready.set(key, live);
      },
      () => {
        if (this.#sites.get(key) === loading) this.#sites.delete(key);
      },
    );
    return loading;
  }

  async #load(key: SiteKey): Promise<LiveSite | undefined> {
    const release = await this.#reading.read((database) => loadRelease(database, key));
    return release && this.#siteOf(release);
  }

  #siteOf(release: Release): LiveSite {
    const sheet = this.#assets.sheetOf(release.site.settings.look);
    const place = {
      base: `/${release.site.key}`,
      origin: this.origin,
      stylesheet: `/${release.site.key}${sheet.path}`,
      fonts: sheet.fonts,
    };
    return new LiveSite(release, place, {
      reading: this.#reading,
      visits: this.#visits,
      now: this.#now,
      secret: () => (this.#secret ??= sessionSecret(this.#reading.primary)),
    });
  }
}
