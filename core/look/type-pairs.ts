/** A family of type that ships with Spur, under the SIL Open Font Licence: its package, its name there, and what stands in while it is not there. */
export interface Family {
  readonly file: string;
  readonly name: string;
  readonly kind: 'sans-serif' | 'serif';
}

const family = (name: string, kind: Family['kind'] = 'sans-serif'): Family => ({
  file: name.toLowerCase().replaceAll(' ', '-'),
  name,
  kind,
});

const BRICOLAGE = family('Bricolage Grotesque');
const HANKEN = family('Hanken Grotesk');
const FRAUNCES = family('Fraunces', 'serif');
const FIGTREE = family('Figtree');
const LITERATA = family('Literata', 'serif');
const NEWSREADER = family('Newsreader', 'serif');
const PUBLIC = family('Public Sans');
const MANROPE = family('Manrope');
const BITTER = family('Bitter', 'serif');
const WORK = family('Work Sans');
const SOURCE_SERIF = family('Source Serif 4', 'serif');
const FRANKLIN = family('Libre Franklin');
const LORA = family('Lora', 'serif');
const NUNITO = family('Nunito Sans');
const ARCHIVO = family('Archivo');
const ATKINSON = family('Atkinson Hyperlegible Next');
const CRIMSON = family('Crimson Pro', 'serif');
const RUBIK = family('Rubik');

/** The families of headings and of text that go together, each with what it is good for. The ids never change. */
export const TYPE_PAIRS = [
  { id: 'quay', headings: BRICOLAGE, text: HANKEN, goodFor: 'Friendly and plain: schools, workshops, most sites' },
  { id: 'hearth', headings: FRAUNCES, text: FIGTREE, goodFor: 'Warm: small organisations, food, places to visit' },
  { id: 'library', headings: LITERATA, text: LITERATA, goodFor: 'Long reading: handbooks, essays, courses' },
  { id: 'gazette', headings: NEWSREADER, text: PUBLIC, goodFor: 'News, reports and minutes' },
  { id: 'office', headings: PUBLIC, text: PUBLIC, goodFor: 'Offices and authorities: neutral, with many tables' },
  { id: 'service', headings: MANROPE, text: MANROPE, goodFor: 'Clear and modern: services and intranets' },
  { id: 'craft', headings: BITTER, text: WORK, goodFor: 'Sturdy: crafts, clubs, farms' },
  { id: 'charter', headings: SOURCE_SERIF, text: FRANKLIN, goodFor: 'Established: foundations, courts, universities' },
  { id: 'garden', headings: LORA, text: NUNITO, goodFor: 'Soft: care, health, nurseries' },
  { id: 'poster', headings: ARCHIVO, text: ARCHIVO, goodFor: 'Loud: events, sport, festivals' },
  { id: 'clear', headings: ATKINSON, text: ATKINSON, goodFor: 'Readers with low vision: no two letters alike' },
  { id: 'museum', headings: CRIMSON, text: WORK, goodFor: 'Quiet and literary: museums, collections' },
  { id: 'play', headings: RUBIK, text: NUNITO, goodFor: 'Round: children, play, youth' },
] as const satisfies readonly {
  readonly id: string;
  readonly headings: Family;
  readonly text: Family;
  readonly goodFor: string;
}[];
export type TypePair = (typeof TYPE_PAIRS)[number];

/** The families of all pairs, each once. */
export const FAMILIES: readonly Family[] = [...new Set(TYPE_PAIRS.flatMap(({ headings, text }) => [headings, text]))];

/** A family as CSS names it, with what stands in while it is not there. */
export const stackOf = ({ name, kind }: Family): string =>
  `'${name}', ${kind === 'serif' ? 'Georgia, serif' : 'system-ui, sans-serif'}`;

/** What a pair is called: the names of its families. */
export const pairName = ({ headings, text }: TypePair): string =>
  headings === text ? headings.name : `${headings.name} and ${text.name}`;
