import { diffArrays, diffWordsWithSpace } from 'diff';
import { DETAIL, FACT, type TextDocument, type TextPart, pageOfLink } from '../model/content.ts';
import type { PageId } from '../model/ids.ts';
import { SECTIONS, nameOfSection } from '../sections/all-sections.ts';

/** A stretch of words of one side, and whether the other side has it. */
export interface Piece {
  readonly words: string;
  readonly mark: 'both' | 'here only';
}
export interface ComparedBlock {
  /** What the block is: `paragraph`, `heading 2`, `list item`, `section` for what is set of one … */
  readonly kind: string;
  readonly pieces: readonly Piece[];
}
/** A block of the earlier text and the one that it became; null where there is none on that side. */
export interface ComparedRow {
  readonly before: ComparedBlock | null;
  readonly after: ComparedBlock | null;
  readonly isSame: boolean;
}

interface Block {
  readonly kind: string;
  readonly text: string;
}

/** What files, pages, shared sections, forms, facts and fields are called that texts name by their ids; the id itself for one that is not known. */
export interface NamesInTexts {
  readonly file: (id: string) => string;
  readonly page: (id: PageId) => string;
  readonly shared: (id: string) => string;
  readonly form: (id: string) => string;
  readonly fact: (id: string) => string;
  readonly field: (id: string) => string;
}
const BY_ID: NamesInTexts = { file: String, page: String, shared: String, form: String, fact: String, field: String };

/** Two texts beside each other, block by block, with the words marked that only one of them has. */
export function compareTexts(
  before: TextDocument | null,
  after: TextDocument | null,
  names: NamesInTexts = BY_ID,
): ComparedRow[] {
  const [old, now] = [blocksOf(before, names), blocksOf(after, names)];
  const rows: ComparedRow[] = [];
  let gone: Block[] = [];
  let come: Block[] = [];
  const settle = () => {
    const shared = Math.min(gone.length, come.length);
    for (let at = 0; at < shared; at++) rows.push(changedRow(gone[at]!, come[at]!));
    for (const block of gone.slice(shared))
      rows.push({ before: whole(block, 'here only'), after: null, isSame: false });
    for (const block of come.slice(shared))
      rows.push({ before: null, after: whole(block, 'here only'), isSame: false });
    gone = [];
    come = [];
  };
  for (const { value, added, removed } of diffArrays(old, now, { comparator: isSameBlock })) {
    if (removed) gone.push(...value);
    else if (added) come.push(...value);
    else {
      settle();
      for (const block of value) rows.push({ before: whole(block, 'both'), after: whole(block, 'both'), isSame: true });
    }
  }
  settle();
  return rows;
}

const isSameBlock = (a: Block, b: Block): boolean => a.kind === b.kind && a.text === b.text;
const whole = ({ kind, text }: Block, mark: Piece['mark']): ComparedBlock => ({
  kind,
  pieces: [{ words: text, mark }],
});

function changedRow(before: Block, after: Block): ComparedRow {
  const parts = diffWordsWithSpace(before.text, after.text);
  const side = (other: 'added' | 'removed'): Piece[] =>
    parts
      .filter((part) => !part[other])
      .map(({ value, added, removed }) => ({ words: value, mark: added || removed ? 'here only' : 'both' }));
  return {
    before: { kind: before.kind, pieces: side('added') },
    after: { kind: after.kind, pieces: side('removed') },
    isSame: false,
  };
}

/** The blocks of a text that hold words, in order, and its sections with what is set of them. */
function blocksOf(document: TextDocument | null, names: NamesInTexts): Block[] {
  const blocks: Block[] = [];
  const read = (part: TextDocument | TextPart, within: string): void => {
    for (const child of part.content ?? []) {
      const inside = WITHIN[child.type] ?? within;
      if (isInline(child)) {
        blocks.push({ kind: kindOf(part as TextPart, within), text: lineOf(part.content ?? [], names) });
        return;
      }
      const set = settingOf(child, names);
      if (set !== null) blocks.push({ kind: 'section', text: set });
      read(child, inside);
    }
  };
  if (document) read(document, '');
  return blocks;
}

const SETTABLE: ReadonlySet<string> = new Set(
  SECTIONS.filter(({ attributes }) => Object.keys(attributes).length > 0).map(({ type }) => type),
);

/** What is set of a section, after its name; null for what is told by its words alone. */
function settingOf({ type, attrs = {} }: TextPart, names: NamesInTexts): string | null {
  if (type === 'horizontalRule') return nameOfSection(type)!;
  if (!SETTABLE.has(type)) return null;
  const set = Object.entries(attrs)
    .flatMap(([name, value]) => said(type, name, value, names))
    .filter((words) => words !== '');
  return `${nameOfSection(type)}${set.length > 0 ? `: ${set.join(', ')}` : ''}`;
}

/** The value of an attribute in words. */
function said(type: string, name: string, value: unknown, names: NamesInTexts): string[] {
  if (value === null || value === undefined || value === '' || value === 0) return [];
  if (Array.isArray(value))
    return value.flatMap((one) => Object.entries(one as object).flatMap(([key, part]) => said(type, key, part, names)));
  const text = String(value as string | number);
  if (name === 'file' || name === 'subtitles') return [names.file(text)];
  if (name === 'of') return [type === 'shared' || type === 'form' ? names[type](text) : names.page(text as PageId)];
  return [name === 'to' ? `→ ${targetOf(text, names)}` : text];
}

const targetOf = (href: string, names: NamesInTexts): string => {
  const page = pageOfLink(href);
  return page === null ? href : names.page(page);
};

/** The words of a line; where some lead elsewhere, where that is stands behind them. */
function lineOf(parts: readonly TextPart[], names: NamesInTexts): string {
  const hrefOf = (part: TextPart | undefined): string | null => {
    const href = part?.marks?.find(({ type }) => type === 'link')?.attrs?.href;
    return typeof href === 'string' ? href : null;
  };
  return parts
    .map((part, at) => {
      const href = hrefOf(part);
      const leads = href !== null && hrefOf(parts[at + 1]) !== href ? ` (→ ${targetOf(href, names)})` : '';
      return wordsOf(part, names) + leads;
    })
    .join('');
}

const WITHIN: Readonly<Record<string, string>> = {
  listItem: 'list item',
  blockquote: 'quotation',
  quotation: 'quotation',
  note: 'note',
  band: 'band',
  fold: 'answer',
  beside: 'beside the text',
  tableHeader: 'header cell',
  tableCell: 'cell',
};
const INLINE: ReadonlySet<string> = new Set(['text', 'hardBreak', FACT, DETAIL]);
const isInline = ({ type }: TextPart): boolean => INLINE.has(type);

function kindOf({ type, attrs }: TextPart, within: string): string {
  if (type === 'heading') return `heading ${Number(attrs?.level ?? 2)}`;
  if (type === 'codeBlock') return 'code';
  if (type === 'foldQuestion') return 'question';
  if (type === 'button') return 'button';
  return within === '' ? 'paragraph' : within;
}

function wordsOf({ type, text, attrs }: TextPart, names: NamesInTexts): string {
  if (type === 'hardBreak') return '\n';
  if (type === FACT) return `[${names.fact(String(attrs?.id))}]`;
  if (type !== DETAIL) return text ?? '';
  const of = attrs?.page == null ? '' : ` of ${names.page(attrs.page as PageId)}`;
  return `[${names.field(String(attrs?.field))}${of}]`;
}
