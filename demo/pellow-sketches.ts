import type { LabelId } from '#core/model/access.ts';
import { type TextDocument, type TextPart, contentIdOf } from '#core/model/content.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { SketchId } from '#core/model/plan.ts';
import type { Box, BoxId, BoxWidth, VariantId } from '#core/model/sketch.ts';
import type { Operation } from '#core/operations/operation.ts';
import { boxOf } from '#core/sketch/planned-boxes.ts';
import { readBoxes } from '#core/sketch/read-boxes.ts';
import { withPlaces } from '#core/sketch/start-writing.ts';

/** A box as it would be typed; what begins with `1/2` or `1/3` takes so much of the width. */
type Line = string;
interface DemoSketch {
  readonly id: string;
  readonly title: string;
  readonly kinds?: readonly string[];
  /** The titles of the pages that name it. */
  readonly pages?: readonly string[];
  readonly taken?: string;
  readonly variants: Readonly<Record<string, readonly Line[]>>;
}

export const TALK = 'talk';
const SKETCHES: readonly DemoSketch[] = [
  {
    id: 'year',
    title: 'The year course',
    pages: ['The year course'],
    variants: {
      'Story first': [
        'Picture: The sixteen of last year beside their boat',
        'Nobody needs to have held a plane before, 60 words',
        'What forty weeks are like, from the first shaving to the launch, 220 words',
        'Quotation: A graduate says why she came, 40 words',
        '1/2 What it costs, and how it can be paid, 70 words',
        '1/2 Who teaches, 70 words',
        'Button: Ask for a place',
      ],
      'Facts first': [
        '1/3 Forty weeks from September, 30 words',
        '1/3 Sixteen places, 30 words',
        '1/3 Paid in ten parts, 30 words',
        'Table: The four terms, and what is built in each',
        'Button: Ask for a place',
        'Fold: What people ask before they apply',
        'Gallery: Boats of the last three years',
      ],
    },
  },
  {
    id: 'course',
    title: 'Short and evening courses',
    kinds: ['course'],
    taken: 'Plain',
    variants: {
      Plain: [
        'What you can do afterwards, 60 words',
        'Fields of the page: Dates, price, places',
        'Picture: Something that was made in it',
        'What happens on which day, 120 words',
        'Button: Book a place',
      ],
    },
  },
  {
    id: 'person',
    title: 'People of the school',
    kinds: ['person'],
    taken: 'Short',
    variants: {
      Short: [
        '1/2 Picture: At the bench, not at a desk',
        '1/2 What they did before they came here, 80 words',
        'Fields of the page: Position, telephone, mail',
      ],
    },
  },
  {
    id: 'saturday',
    title: 'Open Saturdays',
    pages: ['Open Saturdays'],
    variants: {
      'Dates on top': [
        'List of pages: The next open Saturdays',
        'What there is to see with children, 90 words',
        'Picture: The steam box with its lid open',
        'Note: Dogs stay outside, and why',
        'How to come by bus and by boat, 80 words',
      ],
      'Pictures on top': [
        'Gallery: A Saturday from nine to four',
        'What there is to see with children, 90 words',
        'List of pages: The next open Saturdays',
        'Form: Come with a school class',
      ],
    },
  },
  {
    id: TALK,
    title: 'Online talks',
    pages: ['Woods of the coast', 'Reading a boat'],
    taken: 'A',
    variants: {
      A: [
        'What the talk is about, 50 words',
        'Who speaks, and what they have built, 40 words',
        'Film: Three minutes of it',
        'What to read before, 60 words',
        'Button: Ask for the link',
      ],
    },
  },
];

/** What is written of the talk so far, box by box. */
const WRITTEN_OF_TALK: Readonly<Record<number, string>> = {
  0: 'Oak, larch, elm and the willow that nobody plants any more: what grows within a day’s walk of the quay, what of it floats, and what was only ever good for fires.',
  1: 'Tobias Wren has bought timber for this school since the old sawpit was still in use.',
};

const WIDTHS: Readonly<Record<string, BoxWidth>> = { '1/2': 'half', '1/3': 'third' };

function boxesOf(sketch: string, variant: number, lines: readonly Line[]): Box[] {
  return lines.flatMap((line, n) => {
    const width = WIDTHS[line.slice(0, 3)] ?? 'whole';
    const typed = width === 'whole' ? line : line.slice(4);
    return readBoxes(typed, () => `${sketch}${variant}x${n}` as BoxId).map((box) => ({ ...box, width }));
  });
}

/** The sketches of the school's pages, with the page that is half written. */
export function pellowSketches(idOf: (title: string) => PageId): {
  readonly operations: Operation[];
  readonly contents: { readonly id: ContentId; readonly document: TextDocument }[];
} {
  const operations = SKETCHES.flatMap(({ id, title, kinds = [], pages = [], taken, variants }): Operation[] => {
    const made = Object.entries(variants).map(([name, lines], n) => ({
      id: `v${n}` as VariantId,
      name,
      boxes: boxesOf(id, n, lines),
    }));
    return [
      {
        name: 'sketch.add',
        sketch: id as SketchId,
        title,
        kinds: kinds as LabelId[],
        variants: made,
        taken: made.find(({ name }) => name === taken)?.id ?? null,
      },
      ...pages.map((page): Operation => ({
        name: 'page.set',
        page: idOf(page),
        fields: { plan: { sketch: id as SketchId } },
      })),
    ];
  });
  const talk = boxesOf(TALK, 0, SKETCHES.find(({ id }) => id === TALK)!.variants.A!);
  const document = withWords(withPlaces(null, talk)!, (box) => WRITTEN_OF_TALK[talk.findIndex(({ id }) => id === box)]);
  const content = contentIdOf(document);
  return {
    operations: [...operations, { name: 'page.set', page: idOf('Woods of the coast'), fields: { content } }],
    contents: [{ id: content, document }],
  };
}

const withWords = (document: TextDocument, wordsOf: (box: BoxId) => string | undefined): TextDocument => ({
  ...document,
  content: (document.content ?? []).map((part): TextPart => {
    const box = boxOf(part);
    const text = box === null ? undefined : wordsOf(box);
    return text === undefined ? part : { ...part, content: [{ type: 'text', text }] };
  }),
});
