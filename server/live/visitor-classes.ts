import type { Membership } from '#core/derive/access.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import type { PassphraseId } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import type { Site } from '#core/model/site.ts';
import { ANYBODY, type Asking } from './asking.ts';
import type { LiveFiles } from './live-files.ts';
import type { LiveView, SitePlace } from './live-view.ts';
import type { ReadyAnswer } from './ready-answer.ts';

/** So many answers of one site are kept ready for one class of visitors; beyond that the one made first makes room. */
const MAX_READY = 20_000;
/** So many classes of one site are remembered; beyond that the one met first makes room. */
const MAX_CLASSES = 64;

/** A site as one class of visitors has it: every answer belongs to one release, to these audiences and passphrases, until the clock turns a page. */
export class VisitorClass {
  readonly asking: Asking;
  readonly view: LiveView;
  readonly #now: () => number;
  notFound: ReadyAnswer | null = null;
  gone: ReadyAnswer | null = null;
  /** Ready answers by the path as it stands in requests. */
  readonly #ready = new Map<string, ReadyAnswer>();

  constructor(asking: Asking, view: LiveView, now: () => number) {
    this.asking = asking;
    this.view = view;
    this.#now = now;
  }

  ready(path: string): ReadyAnswer | undefined {
    const answer = this.#ready.get(path);
    if (answer === undefined || answer.until === Infinity || answer.until > this.#now()) return answer;
    this.#ready.delete(path);
    return undefined;
  }

  allReady(): Iterable<[path: string, answer: ReadyAnswer]> {
    return this.#ready;
  }

  keep(path: string, answer: ReadyAnswer): void {
    if (this.#ready.size >= MAX_READY) this.#ready.delete(this.#ready.keys().next().value!);
    this.#ready.set(path, answer);
  }
}

/** The classes of a site's visitors: those who belong to the same audiences and gave the same passphrases are of one. */
export class VisitorClasses {
  readonly #site: Site;
  readonly #place: SitePlace;
  readonly #files: LiveFiles;
  readonly #now: () => number;
  /** What nobody who is signed in gets. */
  #anonymous: VisitorClass;
  readonly #others = new Map<string, VisitorClass>();
  /** The keys of those who are signed in and gave no passphrase, by their list of audiences. */
  readonly #keys = new WeakMap<readonly AudienceId[], string>();
  /** The passphrases that its pages ask for: no other makes a visitor differ. */
  readonly #passphrases: ReadonlySet<PassphraseId>;

  constructor(site: Site, files: LiveFiles, place: SitePlace, now: () => number) {
    this.#site = site;
    this.#files = files;
    this.#place = place;
    this.#now = now;
    this.#anonymous = this.#make(ANYBODY);
    const { ruled, nodes } = this.#anonymous.view.derived.outline;
    this.#passphrases = new Set(ruled.flatMap((row) => nodes[row]!.access?.passphrase ?? []));
  }

  /** All that were met and are remembered. */
  get all(): readonly VisitorClass[] {
    return [this.#anonymous, ...this.#others.values()];
  }

  /** The class of whoever asks, as it is now. */
  of(asking: Asking): VisitorClass {
    const known = this.known(asking);
    if (known) return known;
    const made = this.#make(asking);
    if (asking === ANYBODY) return (this.#anonymous = made);
    if (this.#others.size >= MAX_CLASSES) this.#others.delete(this.#others.keys().next().value!);
    this.#others.set(this.#keyOf(asking), made);
    return made;
  }

  /** The same, if it was met and the clock has turned no page since. */
  known(asking: Asking): VisitorClass | undefined {
    const found = asking === ANYBODY ? this.#anonymous : this.#others.get(this.#keyOf(asking));
    if (!found) return undefined;
    const { until } = found.view;
    return until === Infinity || until > this.#now() ? found : undefined;
  }

  #make(asking: Asking): VisitorClass {
    const member: Membership = new Set([
      ...closureOf(this.#site.settings.audiences, audiencesOf(asking)),
      ...asking.passphrases,
    ]);
    const view = visitorView(this.#site, member, this.#now(), asking.isSignedIn);
    return new VisitorClass(asking, { ...view, place: this.#place, walk: null, files: this.#files }, this.#now);
  }

  #keyOf(asking: Asking): string {
    if (!asking.isSignedIn || asking.passphrases.length > 0) return this.#newKeyOf(asking);
    // Who is signed in asks with the same list again and again.
    let key = this.#keys.get(asking.audiences);
    if (key === undefined) this.#keys.set(asking.audiences, (key = this.#newKeyOf(asking)));
    return key;
  }

  #newKeyOf(asking: Asking): string {
    return [
      String(asking.isSignedIn),
      ...[...closureOf(this.#site.settings.audiences, audiencesOf(asking))].sort(),
      ...asking.passphrases.filter((id) => this.#passphrases.has(id)).sort(),
    ].join();
  }
}

/** What somebody is put into; whoever is not signed in, into everyone. */
const audiencesOf = ({ isSignedIn, audiences }: Asking): readonly AudienceId[] => (isSignedIn ? audiences : [EVERYONE]);
