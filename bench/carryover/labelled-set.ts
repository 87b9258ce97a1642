import { readFileSync } from 'node:fs';
import type { MatchPage } from '#core/carryover/match-page.ts';
import { slugFromTitle } from '#core/model/slug.ts';

/** An old site and a plan, with the pairs that a person would make. */
export interface LabelledSet {
  readonly name: string;
  readonly old: readonly MatchPage[];
  readonly planned: readonly MatchPage[];
  readonly pairs: readonly (readonly [old: string, planned: string])[];
}

/**
 * What the sets are made of: the pages of four invented sites, by section. A line is a page: its title, then other wordings
 * for the same thing, then what it speaks of. The first two are for developing; the last two are not looked at meanwhile.
 */
// Read from where the benchmarks are run: built, this stands elsewhere.
export const concepts = (name: string): string => readFileSync(`bench/carryover/concepts/${name}.txt`, 'utf8');
const [SCHOOL, MUSEUM, OFFICE, CLUB] = [concepts('school'), concepts('museum'), concepts('office'), concepts('club')];
export const ALL_CONCEPTS: readonly string[] = [SCHOOL, MUSEUM, OFFICE, CLUB];

/** The sets for developing, and those that are looked at only to report. */
export const developing = (): LabelledSet[] =>
  [11, 12, 13].flatMap((seed) => [makeSet('school', SCHOOL, seed), makeSet('museum', MUSEUM, seed)]);
export const unseen = (): LabelledSet[] =>
  [21, 22].flatMap((seed) => [makeSet('office', OFFICE, seed), makeSet('club', CLUB, seed)]);

export interface Concept {
  readonly wordings: readonly string[];
  readonly keywords: readonly string[];
  readonly section: readonly string[];
}

export const FILLER =
  'please note more information about this can be found here every year since many people ask when you come we look forward open for all see below last changed'.split(
    ' ',
  );

/** Path styles that old sites have; a section keeps to one. */
export const STYLES: readonly ((title: string, section: string, number: number) => string)[] = [
  (title, section) => `/${slugFromTitle(section)}/${slugFromTitle(title)}.html`,
  (title, section) => `/${section.replace(/\W+/g, '')}/${title.replace(/\W+/g, '_')}.htm`,
  (_, section, number) => `/${slugFromTitle(section)}.php?id=${number}`,
  (_, __, number) => `/node/${number}`,
  (title) => `/${slugFromTitle(title).split('-').slice(0, 2).join('-')}`,
  (title, section) => `/${section.slice(0, 4).toLowerCase()}/${title.replace(/\W+/g, '')}.aspx`,
];

/** A set made of the concepts of one site by a generator that always gives the same. */
export function makeSet(name: string, text: string, seed: number): LabelledSet {
  const random = mulberry32(seed);
  const chance = (share: number) => random() < share;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const old: MatchPage[] = [];
  const planned: MatchPage[] = [];
  const pairs: [string, string][] = [];
  const suffix = ` - ${name === 'office' ? 'Intranet' : `The ${name}`}`;
  let number = 100;

  const words = (concept: Concept, share: number) => [
    ...concept.keywords.filter(() => chance(share)),
    ...Array.from({ length: 14 }, () => pick(FILLER)),
  ];
  const addOld = (concept: Concept, title: string, style: number, headings: string[] = [], text = '') => {
    number += 1 + Math.floor(random() * 9);
    const written = chance(0.08) ? mistyped(title, random) : title;
    const page: MatchPage = {
      key: `https://old.${name}.example${STYLES[style]!(written, concept.section.at(-1)!, number)}`,
      address: '',
      title: written + (chance(0.9) ? suffix : ''),
      above: [],
      headings: chance(0.7) ? [written, ...headings] : headings,
      text: text || (chance(0.92) ? words(concept, 0.7).join(' ') : ''),
    };
    const key = old.some((one) => one.key === page.key) ? `${page.key}?v=${number}` : page.key;
    old.push({ ...page, key, address: key });
    return key;
  };
  const addPlanned = (concept: Concept, title: string) => {
    const id = `${name}${planned.length}`;
    const section = concept.section[0]!;
    planned.push({
      key: id,
      address: title === section ? `/${slugFromTitle(title)}` : `/${slugFromTitle(section)}/${slugFromTitle(title)}`,
      title,
      above: title === section ? [] : [section],
      headings: [],
      text: chance(0.8) ? words(concept, 0.6).join(' ') : '',
    });
    return id;
  };

  for (const { heading, concepts } of sectionsOf(text)) {
    const style = Math.floor(random() * STYLES.length);
    const top: Concept = { wordings: heading, keywords: [], section: heading };
    pairs.push([addOld(top, pick(heading), style), addPlanned(top, heading[0]!)]);
    for (let at = 0; at < concepts.length; at++) {
      const concept = concepts[at]!;
      const [mine, theirs] = [pick(concept.wordings), pick(concept.wordings)];
      const title = chance(0.45) ? mine : theirs;
      const dice = random();
      if (dice < 0.1) addOld(concept, title, style);
      else if (dice < 0.18) addPlanned(concept, mine);
      else if (dice < 0.25 && at + 1 < concepts.length) {
        // Two planned pages were one old page, with a heading for each.
        const next = concepts[++at]!;
        const second = pick(next.wordings);
        const key = addOld(
          concept,
          title,
          style,
          [title, second],
          [...words(concept, 0.7), ...words(next, 0.7)].join(' '),
        );
        pairs.push([key, addPlanned(concept, mine)], [key, addPlanned(next, pick(next.wordings))]);
      } else if (dice < 0.32) {
        // Two old pages come together on one planned page.
        const id = addPlanned(concept, mine);
        pairs.push(
          [addOld(concept, title, style), id],
          [addOld(concept, pick(concept.wordings) + pick([' 2', ' (old)', ' part two', ' print version']), style), id],
        );
      } else pairs.push([addOld(concept, title, style), addPlanned(concept, mine)]);
    }
  }
  return { name, old: shuffled(old, random), planned, pairs };
}

export function sectionsOf(text: string): { heading: string[]; concepts: Concept[] }[] {
  const sections: { heading: string[]; concepts: Concept[] }[] = [];
  for (const line of text.trim().split('\n')) {
    if (line.startsWith('# ')) sections.push({ heading: line.slice(2).split(' | '), concepts: [] });
    else {
      const at = line.lastIndexOf(' : ');
      const section = sections.at(-1)!;
      section.concepts.push({
        wordings: line.slice(0, at).split(' / '),
        keywords: line.slice(at + 3).split(' '),
        section: section.heading,
      });
    }
  }
  return sections;
}

/** Two neighbouring letters change places, or one is lost. */
export function mistyped(title: string, random: () => number): string {
  const at = 1 + Math.floor(random() * Math.max(1, title.length - 3));
  return random() < 0.5
    ? title.slice(0, at) + title[at + 1]! + title[at]! + title.slice(at + 2)
    : title.slice(0, at) + title.slice(at + 1);
}

export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const result = [...list];
  for (let at = result.length - 1; at > 0; at--) {
    const other = Math.floor(random() * (at + 1));
    [result[at], result[other]] = [result[other]!, result[at]!];
  }
  return result;
}

/** A small generator of numbers from 0 to 1 that always gives the same for the same seed. */
export function mulberry32(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}
