import type { TextPart } from '../model/content.ts';
import { BAND } from './band.ts';
import { BESIDE } from './beside.ts';
import { COLUMN, COLUMNS } from './columns.ts';
import { FOLD, FOLD_QUESTION } from './fold.ts';
import { NOTE } from './note.ts';
import { PLANNED_BOX, STAND_FOR_BOXES } from './planned-box.ts';
import { QUOTATION } from './quotation.ts';
import { EMPTY_PARAGRAPH } from './section-type.ts';

/** What a section can be turned into; `text` takes its blocks out of it. */
export const TURNS = {
  text: 'Plain text',
  [NOTE.type]: 'Note',
  [BAND.type]: 'Band',
  [FOLD.type]: 'Fold',
  [QUOTATION.type]: 'Quotation with its source',
  [BESIDE.type]: 'Beside the text',
  [COLUMNS.type]: 'Columns',
} as const;
export type Turn = keyof typeof TURNS;

/**
 * A section as another type, with every word of it: what stands in its place. Null where it cannot be that: a quotation holds lines of
 * words alone. It is nothing but what it is where it has that type already. What stands for a box of a sketch goes on doing so.
 */
export function turned(section: TextPart, into: Turn): readonly TextPart[] | null {
  const parts = inAnotherType(section, into);
  const box = section.attrs?.[PLANNED_BOX] ?? null;
  if (parts === null || parts[0] === section || box === null || !STANDS.has(parts[0]!.type)) return parts;
  const [first, ...rest] = parts;
  return [{ ...first!, attrs: { ...first!.attrs, [PLANNED_BOX]: box } }, ...rest];
}

const STANDS: ReadonlySet<string> = new Set(STAND_FOR_BOXES);

function inAnotherType(section: TextPart, into: Turn): readonly TextPart[] | null {
  const blocks = blocksOf(section);
  if (blocks === null) return null;
  if (section.type === into) return [section];
  const filled = blocks.length === 0 ? [EMPTY_PARAGRAPH] : blocks;
  switch (into) {
    case 'text':
      return filled;
    case NOTE.type:
      return [{ type: NOTE.type, attrs: { tone: 'note' }, content: filled }];
    case BAND.type:
      return [{ type: BAND.type, attrs: { scheme: 'tinted', width: 'page' }, content: filled }];
    case BESIDE.type:
      return [{ type: BESIDE.type, content: filled }];
    case QUOTATION.type:
      return filled.every(({ type }) => type === 'paragraph')
        ? [{ type: QUOTATION.type, attrs: { source: '' }, content: filled }]
        : null;
    case FOLD.type: {
      const [first, ...rest] = filled;
      const isLine = first!.type === 'paragraph' || first!.type === 'heading';
      const question: TextPart = {
        type: FOLD_QUESTION.type,
        ...(isLine && first!.content && { content: first!.content }),
      };
      const answer = isLine ? rest : filled;
      return [{ type: FOLD.type, content: [question, ...(answer.length === 0 ? [EMPTY_PARAGRAPH] : answer)] }];
    }
    case COLUMNS.type: {
      const half = Math.ceil(filled.length / 2);
      return [
        {
          type: COLUMNS.type,
          content: [filled.slice(0, half), filled.slice(half)].map((content) => ({
            type: COLUMN.type,
            content: content.length === 0 ? [EMPTY_PARAGRAPH] : content,
          })),
        },
      ];
    }
    default:
      return null;
  }
}

/** What a section can be turned into, besides what it is. */
export const turnsOf = (section: TextPart): Turn[] =>
  (Object.keys(TURNS) as Turn[]).filter((into) => into !== section.type && turned(section, into) !== null);

/** The blocks of a section that holds such, with what is said of it as a line of its own; null for one of another make. */
function blocksOf({ type, attrs, content = [] }: TextPart): readonly TextPart[] | null {
  switch (type) {
    case NOTE.type:
    case BAND.type:
    case BESIDE.type:
      return content;
    case QUOTATION.type: {
      const source = String(attrs?.source ?? '');
      return source === '' ? content : [...content, { type: 'paragraph', content: [{ type: 'text', text: source }] }];
    }
    case FOLD.type:
      return content.map((part) => (part.type === FOLD_QUESTION.type ? { ...part, type: 'paragraph' } : part));
    case COLUMNS.type:
      return content.flatMap((column) => column.content ?? []);
    default:
      return null;
  }
}
