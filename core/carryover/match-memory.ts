import type { MatchPage } from './match-page.ts';
import { type PairSignals, WordWeights, compare } from './pair-signals.ts';
import { type PreparedPage, preparePages } from './prepare-pages.ts';

interface Remembered {
  readonly page: MatchPage;
  /** As it was taken apart, and the same object that pairs are remembered by, until a word of it counts otherwise. */
  readonly made: PreparedPage;
  readonly prepared: PreparedPage;
}

/**
 * What one matching leaves for the next one of the same two sites, so that only what has changed is worked out again.
 * A page is the same object as before while nothing of it has changed and each of its words counts for as much; what is
 * known of pairs hangs on these objects. The pairs that come out are those of a matching without a memory: a law, tested.
 */
export class MatchMemory {
  #old = new Map<string, Remembered>();
  #planned = new Map<string, Remembered>();
  #weights = new WordWeights([]);
  #signals = new WeakMap<PreparedPage, WeakMap<PreparedPage, PairSignals>>();

  /** Takes the pages of both sides apart; those that `isOut` names are left out afterwards. */
  prepare(
    old: readonly MatchPage[],
    planned: readonly MatchPage[],
    isOut: { readonly old: ReadonlySet<string>; readonly planned: ReadonlySet<string> },
  ): { old: PreparedPage[]; planned: PreparedPage[]; weights: WordWeights } {
    const from = preparePages(old, (page) => known(this.#old, page)).filter(({ key }) => !isOut.old.has(key));
    const to = preparePages(planned, (page) => known(this.#planned, page)).filter(({ key }) => !isOut.planned.has(key));
    const weights = new WordWeights([...from, ...to]);
    const before = this.#weights;
    this.#weights = weights;
    const changed = new Map<string, boolean>();
    const isStale = (word: string): boolean => {
      let is = changed.get(word);
      if (is === undefined) changed.set(word, (is = !weights.isSame(word, before)));
      return is;
    };
    const [ours, theirs] = [remembered(this.#old, old, from, isStale), remembered(this.#planned, planned, to, isStale)];
    this.#old = ours;
    this.#planned = theirs;
    return {
      old: from.map(({ key }) => ours.get(key)!.prepared),
      planned: to.map(({ key }) => theirs.get(key)!.prepared),
      weights,
    };
  }

  /** How alike two pages are that `prepare` gave. */
  compare(a: PreparedPage, b: PreparedPage): PairSignals {
    let ofA = this.#signals.get(a);
    if (!ofA) this.#signals.set(a, (ofA = new WeakMap()));
    let signals = ofA.get(b);
    if (!signals) ofA.set(b, (signals = compare(a, b, this.#weights)));
    return signals;
  }
}

/** What was made of a page, where it is as it was. */
function known(pages: ReadonlyMap<string, Remembered>, page: MatchPage): PreparedPage | undefined {
  const one = pages.get(page.key);
  return one && isSamePage(one.page, page) ? one.made : undefined;
}

function remembered(
  before: ReadonlyMap<string, Remembered>,
  pages: readonly MatchPage[],
  made: readonly PreparedPage[],
  isStale: (word: string) => boolean,
): Map<string, Remembered> {
  const pageAt = new Map(pages.map((page) => [page.key, page]));
  return new Map(
    made.map((one): [string, Remembered] => {
      const then = before.get(one.key);
      const isSame = then?.made === one && !wordsIn(one).some((words) => words.some(isStale));
      return [one.key, { page: pageAt.get(one.key)!, made: one, prepared: isSame ? then.prepared : { ...one } }];
    }),
  );
}

/** All words of a page that comparing looks at; those of its title and its headings stand in its text. */
const wordsIn = ({ text, title, lastStep, section }: PreparedPage): readonly (readonly string[])[] => [
  [...text.keys()],
  title,
  lastStep,
  section,
];

const isSamePage = (a: MatchPage, b: MatchPage): boolean =>
  a.title === b.title &&
  a.address === b.address &&
  a.text === b.text &&
  isSameList(a.headings, b.headings) &&
  isSameList(a.above, b.above);

const isSameList = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((one, at) => one === b[at]);
