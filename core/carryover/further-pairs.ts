import type { Pair } from './candidates.ts';
import type { ComparedPair } from './one-to-one.ts';
import { type PairSignals, WordWeights, overlap } from './pair-signals.ts';
import { tieBreak } from './tie-break.ts';
import type { PreparedPage } from './prepare-pages.ts';

/** How alike a further page has to be where something says that it is a part or a version, and where nothing does. */
const ALIKE_WITH_SIGN = -3.6;
const ALIKE_WITHOUT = -4;
/** Without such a sign a further page is never accepted without a look at it. */
const MAX_WITHOUT = 0.7;
const SAME_HEADING = 0.75;
const SAME_TEXT = 0.5;
/** So much of what rare words can say. */
const MANY_RARE = 0.4;

/**
 * The best pair of each page that is left over on one side (0 old, 1 planned) with a page of the other side that has a
 * partner: an old page that is one of several for a planned one, or a planned page that is a part of an old one.
 */
export function furtherPairs(
  old: readonly PreparedPage[],
  planned: readonly PreparedPage[],
  compared: readonly ComparedPair[],
  partners: readonly Pair[],
  side: 0 | 1,
): (ComparedPair & { readonly confidence: number })[] {
  const sides = [old, planned] as const;
  const taken = new Set(partners.map((pair) => pair[side]));
  /** The partner, on the side of what is left over, of each page of the other side. */
  const partnerOf = new Map(partners.map((pair) => [pair[1 - side]!, sides[side][pair[side]]!]));
  const even = new WordWeights([]);
  const best = new Map<number, ComparedPair & { readonly confidence: number; readonly ranked: number }>();
  for (const one of compared) {
    const partner = partnerOf.get(one.pair[1 - side]!);
    if (taken.has(one.pair[side]) || partner === undefined) continue;
    const sign = signOf(
      one.signals,
      sides[side][one.pair[side]]!,
      sides[1 - side]![one.pair[1 - side]!]!,
      partner,
      even,
    );
    if (one.alike < (sign > 0 ? ALIKE_WITH_SIGN : ALIKE_WITHOUT)) continue;
    if (sign === 0 && !isMuchAlike(one.signals)) continue;
    const confidence =
      sign > 0 ? logistic(0.5 * one.alike + 2.6 * sign) : Math.min(MAX_WITHOUT, logistic(0.5 * one.alike - 0.8));
    const known = best.get(one.pair[side]);
    const ranked = confidence + tieBreak(old[one.pair[0]]!.key, planned[one.pair[1]]!.key);
    if (!known || ranked > known.ranked) best.set(one.pair[side], { ...one, confidence, ranked });
  }
  return [...best.values()];
}

/**
 * From 0 to 1, how clearly `left` is a part or a version of `whole`, or one with its `partner`: it is one of the
 * headings of the whole that are not its own title, or made of several; it and the partner both say what the whole says and
 * more; it has the same title but for what marks a version, or the very same and a like text; or the title of the whole is
 * made of both titles.
 */
function signOf(
  signals: PairSignals,
  left: PreparedPage,
  whole: PreparedPage,
  partner: PreparedPage,
  even: WordWeights,
): number {
  const isSection = (page: PreparedPage, of: PreparedPage) =>
    of.headings.some(
      (heading) =>
        overlap(heading, page.title, even) >= SAME_HEADING && overlap(heading, of.title, even) < SAME_HEADING,
    );
  if (isSection(left, whole) || isMadeOfSections(left, whole)) return 1;
  if (isAspect(left, whole) && isAspect(partner, whole)) return 0.9;
  if (left.bareTitle !== '' && (left.isVersion || partner.isVersion)) {
    if (left.bareTitle === whole.bareTitle || left.bareTitle === partner.bareTitle) return 1;
    if (left.isVersion) return 0.4;
  }
  if (left.bareTitle !== '' && left.bareTitle === partner.bareTitle && signals.text > SAME_TEXT) return 0.8;
  const words = new Set(whole.title);
  const mine = left.title.filter((word) => words.has(word) && !partner.title.includes(word));
  const theirs = partner.title.filter((word) => words.has(word) && !left.title.includes(word));
  const both = new Set([...left.title, ...partner.title]);
  const isMade = [...words].every((word) => both.has(word)) && isMostly(left, words) && isMostly(partner, words);
  return mine.length > 0 && theirs.length > 0 && isMade ? 0.9 : 0;
}

/** Whether two pages say so much the same that one may be the other once more, though nothing marks it as that. */
const isMuchAlike = ({ text, rareWords }: PairSignals): boolean => text >= SAME_TEXT || rareWords >= MANY_RARE;

/** Whether the title is made of headings of the whole: ‘Lift and wheelchair’ of two of them. */
function isMadeOfSections({ title }: PreparedPage, { headings, title: own }: PreparedPage): boolean {
  const words = new Set(headings.flat().filter((word) => !own.includes(word)));
  return title.length > 1 && title.every((word) => words.has(word));
}

/**
 * Whether the title begins with that of the whole and says more: ‘Courses for adults: terms’ and ‘Courses for adults’. After a single
 * word a colon or a bracket has to say so: ‘School visits’ are no part of ‘School’.
 */
function isAspect(page: PreparedPage, whole: PreparedPage): boolean {
  if (!page.wholeTitle.startsWith(`${whole.wholeTitle} `)) return false;
  return whole.title.length > 1 || /^[:;,(–—-]/.test(page.ownTitle.slice(whole.ownTitle.length).trim());
}

/** Whether more of a page's title is among the words than not. */
const isMostly = ({ title }: PreparedPage, words: ReadonlySet<string>): boolean =>
  2 * title.filter((word) => words.has(word)).length > title.length;

const logistic = (odds: number): number => 1 / (1 + Math.exp(-odds));
