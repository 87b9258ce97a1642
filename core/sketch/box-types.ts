import { INSERTABLE } from '../sections/all-sections.ts';
import { EMPTY_PARAGRAPH, type SectionType } from '../sections/section-type.ts';
import { SECTIONS } from '../sections/all-sections.ts';
import type { TextPart } from '../model/content.ts';
import type { Box, BoxType } from '../model/sketch.ts';
import { PLANNED_BOX } from '../sections/planned-box.ts';

/** How a box is drawn: with lines for text, with crossed plates for pictures, and so on. */
export type BoxShape = 'text' | 'picture' | 'pictures' | 'button' | 'lines' | 'table' | 'cards' | 'player' | 'fields';

/** What is known of a type of box. */
export interface KnownBox {
  readonly name: string;
  readonly shape: BoxShape;
  /** Whether it holds words, of which one can say how many. */
  readonly hasWords: boolean;
}

const SHAPES: Readonly<Record<BoxType, readonly [BoxShape, hasWords: boolean]>> = {
  text: ['text', true],
  picture: ['picture', false],
  gallery: ['pictures', false],
  button: ['button', false],
  note: ['text', true],
  band: ['text', true],
  fold: ['lines', true],
  table: ['table', false],
  pageList: ['cards', false],
  pageFields: ['lines', false],
  quotation: ['text', true],
  download: ['lines', false],
  film: ['player', false],
  sound: ['player', false],
  form: ['fields', false],
};

/** Every type of box; sections are called as they are where they are inserted. */
export const BOXES = Object.fromEntries(
  Object.entries(SHAPES).map(([type, [shape, hasWords]]) => {
    const listed = INSERTABLE.find((one) => one.type === type);
    const known: KnownBox = {
      name: listed?.name ?? 'Text',
      shape,
      hasWords,
    };
    return [type, known];
  }),
) as Readonly<Record<BoxType, KnownBox>>;

/** The section that a box becomes: empty, and saying for which box it stands. What a button is for is what it says. */
export function sectionOf({ id, type, purpose }: Pick<Box, 'id' | 'type' | 'purpose'>): TextPart {
  const made = INSERTABLE.find((one) => one.type === type)?.make() ?? EMPTY_PARAGRAPH;
  return {
    ...made,
    attrs: { ...made.attrs, [PLANNED_BOX]: id },
    ...(type === 'button' && purpose !== '' && { content: [{ type: 'text', text: purpose }] }),
  };
}

/** Whether the section of a type can stand in a column; the others stand across the page. */
export const fitsInColumn = (type: BoxType): boolean =>
  type === 'text' || SECTIONS.find((one: SectionType) => one.type === type)?.group === 'block';
