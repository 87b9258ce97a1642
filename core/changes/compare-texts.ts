import { diffArrays, diffWordsWithSpace } from 'diff';
import { FACT, type TextDocument, type TextPart } from '../model/content.ts';
import { nameOfSection } from '../sections/all-sections.ts';

/** A stretch of words of one side, and whether the other side has it. */
export interface Piece {
  readonly words: string;
  readonly mark: 'both' | 'here only';
}
export interface ComparedBlock {
  /** What the block is: `paragraph`, `heading 2`, `list item` … */
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

/** Two texts beside each other, block by block, with the words marked that only one of them has. */
export function compareTexts(before: TextDocument | null, after: TextDocument | null): ComparedRow[] {
  const [old, now] = [blocksOf(before), blocksOf(after)];
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

/** The blocks of a text that hold words, in order. */
function blocksOf(document: TextDocument | null): Block[] {
  const blocks: Block[] = [];
  const read = (part: TextDocument | TextPart, within: string): void => {
    for (const child of part.content ?? []) {
      const inside = WITHIN[child.type] ?? within;
      if (SILENT.has(child.type)) {
        // What holds no words is told by its name, and by what is set of it.
        const set = Object.values(child.attrs ?? {}).filter((value) => value !== null && value !== '');
        blocks.push({ kind: child.type, text: [nameOfSection(child.type), ...set].join(' ') });
        continue;
      }
      if (isInline(child)) {
        blocks.push({ kind: kindOf(part as TextPart, within), text: (part.content ?? []).map(wordsOf).join('') });
        return;
      }
      read(child, inside);
    }
  };
  if (document) read(document, '');
  return blocks;
}

const WITHIN: Readonly<Record<string, string>> = {
  listItem: 'list item',
  blockquote: 'quotation',
  quotation: 'quotation',
  note: 'note',
  fold: 'answer',
  beside: 'beside the text',
  tableHeader: 'header cell',
  tableCell: 'cell',
};
const SILENT: ReadonlySet<string> = new Set(['horizontalRule', 'pageList']);
const INLINE: ReadonlySet<string> = new Set(['text', 'hardBreak', FACT]);
const isInline = ({ type }: TextPart): boolean => INLINE.has(type);

function kindOf({ type, attrs }: TextPart, within: string): string {
  if (type === 'heading') return `heading ${Number(attrs?.level ?? 2)}`;
  if (type === 'codeBlock') return 'code';
  if (type === 'foldQuestion') return 'question';
  if (type === 'button') return 'button';
  return within === '' ? 'paragraph' : within;
}

const wordsOf = ({ type, text, attrs }: TextPart): string =>
  type === 'hardBreak' ? '\n' : type === FACT ? `[${String(attrs?.id)}]` : (text ?? '');
