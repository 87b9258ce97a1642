import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import type { AudienceId } from './audience.ts';
import { canonicalJson } from './canonical-json.ts';
import type { ContentId, PageId } from './ids.ts';
import { freeSlug, slugFromTitle } from './slug.ts';

/** A page's text as structured JSON: the document of the editor. */
export interface TextDocument {
  readonly type: 'doc';
  readonly content?: readonly TextPart[];
}
export interface TextPart {
  readonly type: string;
  readonly attrs?: Readonly<Record<string, unknown>>;
  readonly content?: readonly TextPart[];
  readonly marks?: readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> }[];
  readonly text?: string;
}

/** The type of a part that only some visitors get: a section with its own rule, at the top of a document alone. */
export const AUDIENCE_SECTION = 'audienceSection';

/** The type of a part that says a fact of the site, by the fact's id. */
export const FACT = 'fact';

/** The type of a part that says what a page says in a field: its field, and the page; null for the page that the text stands on. */
export const DETAIL = 'detail';

/** Who gets a section of a text; whoever gets its page, where it names nobody. */
export interface SectionRule {
  /** Only these audiences; null for all. */
  readonly only: readonly AudienceId[] | null;
  readonly except: readonly AudienceId[];
}

/** A stretch of a text as HTML, with who gets it; `only` null and `except` empty for all. */
export interface RenderedPart extends SectionRule {
  readonly html: string;
  /** The files of the library that it shows; left out where it shows none. */
  readonly files?: readonly string[];
  /** The shared sections that it shows; left out where it shows none. */
  readonly shared?: readonly string[];
}

/** A stretch of a document that the same visitors get; `rule` is null where that is all who get the page. */
export interface DocumentStretch {
  readonly rule: SectionRule | null;
  readonly document: TextDocument;
}

/** A document as stretches in order: sections for some, each by itself, and what stands between them. */
export function stretchesOf(document: TextDocument): DocumentStretch[] {
  const stretches: { rule: SectionRule | null; content: TextPart[] }[] = [];
  for (const part of document.content ?? []) {
    const rule = sectionRuleOf(part);
    const last = stretches.at(-1);
    if (rule !== null) stretches.push({ rule, content: [...(part.content ?? [])] });
    else if (last?.rule === null) last.content.push(part);
    else stretches.push({ rule: null, content: [part] });
  }
  return stretches.map(({ rule, content }) => ({ rule, document: { type: 'doc', content } }));
}

/** The rule of a section for some audiences; null for any other part. */
function sectionRuleOf({ type, attrs }: TextPart): SectionRule | null {
  if (type !== AUDIENCE_SECTION) return null;
  const { only = null, except = [] } = (attrs ?? {}) as Partial<SectionRule>;
  return { only, except };
}

const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

/**
 * The id of a text: 12 letters and digits (71 bits) of the SHA-256 of its JSON with sorted keys. The same text has
 * the same id, so that a text changed and changed back is no change.
 */
export function contentIdOf(document: TextDocument): ContentId {
  const digest = sha256(utf8ToBytes(canonicalJson(document)));
  let number = 0n;
  for (const byte of digest.subarray(0, 9)) number = (number << 8n) | BigInt(byte);
  let id = '';
  for (let i = 0; i < 12; i++) {
    id += LETTERS[Number(number % 62n)];
    number /= 62n;
  }
  return id as ContentId;
}

/** The words of a text, its blocks parted by spaces; for search, counts and extracts. */
export function plainTextOf(document: TextDocument | TextPart): string {
  if ('text' in document && document.text !== undefined) return document.text;
  if (document.type === FACT) return '…';
  const parts = (document.content ?? []).map(plainTextOf);
  const inline = (document.content ?? []).every((part) => part.type === 'text' || part.type === FACT);
  return parts
    .join(inline ? '' : ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

const PAGE_LINK = /^page:([0-9A-Za-z]{1,24})(?:#([a-z0-9-]{1,80}))?$/;

/** A link within a text to a page of the site, by the page: wherever it stands, the link leads there; to a heading of its text by the heading's anchor. */
export const pageLink = (page: PageId, heading: string | null = null): string =>
  heading === null ? `page:${page}` : `page:${page}#${heading}`;

/** The page that a link within a text leads to; null where it leads to an address. */
export function pageOfLink(href: string): PageId | null {
  const found = PAGE_LINK.exec(href);
  return found ? (found[1] as PageId) : null;
}

/** A heading within a text, and the anchor by which links lead to it. */
export interface TextHeading {
  readonly words: string;
  readonly anchor: string;
  /** 2 to 4: the page's title is of level 1. */
  readonly level: number;
}

/** The headings of a text in their order. */
export function headingsOf(document: TextDocument): TextHeading[] {
  const found: { words: string; level: number }[] = [];
  const walk = (part: TextDocument | TextPart): void => {
    if (part.type !== 'heading') part.content?.forEach(walk);
    else found.push({ words: spoken(part), level: Number((part as TextPart).attrs?.level ?? 2) });
  };
  walk(document);
  return anchorsFor(found.map(({ words }) => words)).map((anchor, index) => ({ ...found[index]!, anchor }));
}

/** What a part says by itself: facts say something else every now and then, so they are passed over. */
const spoken = (part: TextPart): string => part.text ?? (part.content ?? []).map(spoken).join('');

/** What pages have anchors for besides the headings of their text. */
const ANCHORS_OF_PAGES: ReadonlySet<string> = new Set(['content', 'near']);

/** The anchors of headings with these words, in their order; no two are the same. */
export function anchorsFor(words: readonly string[]): string[] {
  const taken = new Set<string>(ANCHORS_OF_PAGES);
  return words.map((one) => {
    const anchor = freeSlug(slugFromTitle(one), (text) => taken.has(text));
    taken.add(anchor);
    return anchor;
  });
}
