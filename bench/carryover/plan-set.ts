import type { MatchPage } from '#core/carryover/match-page.ts';
import type { Origin } from '#core/model/plan.ts';
import { slugFromTitle } from '#core/model/slug.ts';
import {
  type Concept,
  FILLER,
  type LabelledSet,
  STYLES,
  concepts,
  mistyped,
  mulberry32,
  sectionsOf,
  shuffled,
} from './labelled-set.ts';

/** What a plan says of a page besides its title. */
export interface PlannedContent {
  /** How many words are expected; null where the plan does not say. */
  readonly words: number | null;
  readonly purpose: string;
}

/** An old site and a plan whose pages have a title and at most a purpose, with the pairs and the origins that a person would give. */
export interface PlanSet extends LabelledSet {
  readonly originOf: ReadonlyMap<string, Origin>;
  readonly wordsOf: ReadonlyMap<string, number>;
  readonly contentOf: ReadonlyMap<string, PlannedContent>;
}

/**
 * The plans for developing, and those that are looked at only to report: of two invented sites each. The other sites' pages
 * serve for developing too.
 */
export const developingPlans = (): PlanSet[] => plansOf(['library', 'parish', 'school', 'museum'], [31, 32]);
export const unseenPlans = (): PlanSet[] => plansOf(['clinic', 'theatre'], [41, 42, 43, 44]);

const plansOf = (names: readonly string[], seeds: readonly number[]): PlanSet[] =>
  seeds.flatMap((seed) => names.map((name) => makePlanSet(name, concepts(name), seed)));

/** How often a page of the old site goes, a planned one is new, one becomes several, and several become one. */
const GOES = 0.12;
const IS_NEW = 0.14;
const SPLITS = 0.09;
const GATHERS = 0.09;

/** A plan made of the pages of one site by a generator that always gives the same. */
export function makePlanSet(name: string, text: string, seed: number): PlanSet {
  const random = mulberry32(seed);
  const chance = (share: number) => random() < share;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const old: MatchPage[] = [];
  const planned: MatchPage[] = [];
  const pairs: [string, string][] = [];
  const originOf = new Map<string, Origin>();
  const wordsOf = new Map<string, number>();
  const contentOf = new Map<string, PlannedContent>();
  const suffix = pick([` - The ${name}`, ` | ${name}`, '']);
  let number = 100;

  /** A page speaks of its keywords, and often says what it is about in other words too. */
  const textOf = (concept: Concept) =>
    [
      ...concept.keywords.filter(() => chance(0.7)),
      ...concept.wordings.filter(() => chance(0.4)),
      ...Array.from({ length: 16 }, () => pick(FILLER)),
    ].join(' ');
  const addOld = (
    concept: Concept,
    title: string,
    style: number,
    { headings = [], text: said }: { readonly headings?: readonly string[]; readonly text?: string } = {},
  ) => {
    number += 1 + Math.floor(random() * 9);
    const written = chance(0.06) ? mistyped(title, random) : title;
    const address = `https://old.${name}.example${STYLES[style]!(written, concept.section.at(-1)!, number)}`;
    const key = old.some((one) => one.key === address) ? `${address}?v=${number}` : address;
    old.push({
      key,
      address: key,
      title: written + suffix,
      above: [],
      headings: [...(chance(0.7) ? [written] : []), ...headings],
      text: chance(0.92) ? (said ?? textOf(concept)) : '',
    });
    wordsOf.set(key, 80 + Math.floor(random() * 500));
    return key;
  };
  const addPlanned = (concept: Concept, title: string, origin: Origin, from: readonly string[]) => {
    const id = `${name}${planned.length}`;
    const section = concept.section[0]!;
    const isTop = title === section;
    const purpose = chance(0.35) ? `So that people can ${concept.keywords.filter(() => chance(0.5)).join(' ')}` : '';
    planned.push({
      key: id,
      address: isTop ? `/${slugFromTitle(title)}` : `/${slugFromTitle(section)}/${slugFromTitle(title)}`,
      title,
      above: isTop ? [] : [section],
      headings: [],
      text: purpose,
    });
    originOf.set(id, origin);
    const sum = from.reduce((total, key) => total + wordsOf.get(key)!, 0);
    const words = origin === 'keep' ? sum * (0.9 + 0.2 * random()) : sum * pick([0.3, 0.5, 0.6, 1, 1.7, 2.2]);
    contentOf.set(id, { words: from.length > 0 && chance(0.5) ? Math.round(words / 10) * 10 : null, purpose });
    for (const key of from) pairs.push([key, id]);
  };
  /** Says the same in other words, more often where the text is written anew. */
  const renamed = (concept: Concept, title: string, isReworked: boolean) =>
    chance(isReworked ? 0.5 : 0.2) ? pick(concept.wordings) : title;

  // The front pages of the two sites have hardly a word in common.
  const front: Concept = { wordings: [], keywords: [], section: [''] };
  old.push({
    key: `https://old.${name}.example/`,
    address: `https://old.${name}.example/`,
    title: pick([`Welcome to the ${name}`, `The ${name}`, 'Start page']),
    above: [],
    headings: [],
    text: Array.from({ length: 12 }, () => pick(FILLER)).join(' '),
  });
  wordsOf.set(old[0]!.key, 120);
  addPlanned(front, pick(['Home', `${name} home`]), 'rework', [old[0]!.key]);
  planned[0] = { ...planned[0]!, address: '/', above: [] };

  for (const { heading, concepts: list } of sectionsOf(text)) {
    const style = Math.floor(random() * STYLES.length);
    const top: Concept = { wordings: heading, keywords: [], section: heading };
    addPlanned(top, heading[0]!, 'rework', [addOld(top, pick(heading), style)]);
    for (let at = 0; at < list.length; at++) {
      const concept = list[at]!;
      const before = pick(concept.wordings);
      const next = list[at + 1];
      let dice = random();
      const isAmong = (share: number) => (dice -= share) < 0;
      if (isAmong(GOES)) addOld(concept, before, style);
      else if (isAmong(IS_NEW)) addPlanned(concept, pick(concept.wordings), 'new', []);
      else if (isAmong(SPLITS)) {
        const [first, second] = concept.keywords;
        if (next === undefined || chance(0.35)) {
          const key = addOld(concept, before, style, { headings: [capital(first!), capital(second!)] });
          addPlanned(concept, renamed(concept, before, false), 'split', [key]);
          addPlanned(concept, `${capital(first!)} ${pick(['and', 'with'])} ${second!}`, 'split', [key]);
        } else {
          at++;
          const other = pick(next.wordings);
          const title = chance(0.5) ? `${before} and ${small(other)}` : before;
          const key = addOld(concept, title, style, {
            headings: [before, other],
            text: `${textOf(concept)} ${textOf(next)}`,
          });
          addPlanned(concept, renamed(concept, before, false), 'split', [key]);
          addPlanned(next, renamed(next, other, false), 'split', [key]);
        }
      } else if (isAmong(GATHERS)) {
        const kind = Math.floor(random() * 3);
        if (kind === 0 && next !== undefined) {
          at++;
          const other = pick(next.wordings);
          const keys = [addOld(concept, before, style), addOld(next, other, style)];
          addPlanned(concept, `${renamed(concept, before, false)} and ${small(other)}`, 'gather', keys);
        } else if (kind === 1) {
          const keys = concept.keywords.slice(0, 2).map((aspect) => addOld(concept, `${before}: ${aspect}`, style));
          addPlanned(concept, renamed(concept, before, false), 'gather', keys);
        } else {
          const version = before + pick([' 2', ' (old)', ' part two', ' print version']);
          const keys = [addOld(concept, before, style), addOld(concept, version, style)];
          addPlanned(concept, renamed(concept, before, false), 'gather', keys);
        }
      } else {
        const isReworked = chance(0.4);
        const key = addOld(concept, before, style);
        addPlanned(concept, renamed(concept, before, isReworked), isReworked ? 'rework' : 'keep', [key]);
      }
    }
  }
  return { name, old: shuffled(old, random), planned, pairs, originOf, wordsOf, contentOf };
}

const capital = (word: string): string => word[0]!.toUpperCase() + word.slice(1);
const small = (title: string): string => title[0]!.toLowerCase() + title.slice(1);
