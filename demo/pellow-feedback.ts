import type { AboutSketch, CommentKind, Proposes, Verdict } from '#core/model/feedback.ts';
import type { SketchId } from '#core/model/plan.ts';
import type { BoxId, VariantId } from '#core/model/sketch.ts';

export interface DemoGuest {
  readonly name: string;
  readonly email: string | null;
  /** Verdicts by the title of a page. */
  readonly verdicts: Readonly<Record<string, Verdict>>;
  readonly comments: readonly DemoComment[];
  /** The variants of sketches that they would take. */
  readonly choices?: readonly { readonly sketch: SketchId; readonly variant: VariantId }[];
}

interface DemoComment {
  readonly page: string;
  readonly kind: CommentKind;
  readonly text: string;
  readonly proposes?: Proposes;
  readonly about?: AboutSketch;
  /** What Ines has answered, where she has. */
  readonly answer?: string;
  readonly isSettled?: boolean;
}

/** Whom the school's plan is shared with in the demo. */
export const PELLOW_SHARE = { name: 'the governors', days: 21 };

/** Of the sketch of the year course: its two variants, and the box in which the costs stand. */
const YEAR = 'year' as SketchId;
const [STORY, FACTS] = ['v0', 'v1'] as string[] as [VariantId, VariantId];
const COSTS = 'year0x4' as BoxId;

/** What three governors say of the school's plan. They are invented, as all that is in the demo. */
export const PELLOW_GUESTS: readonly DemoGuest[] = [
  {
    name: 'Petra Vane',
    email: 'petra@pellow-quay.example',
    choices: [{ sketch: YEAR, variant: STORY }],
    verdicts: {
      Courses: 'agreed',
      'Long courses': 'agreed',
      'The year course': 'change',
      'Term by term': 'agreed',
      'Fees for the year course': 'unsure',
      'What graduates do': 'agreed',
      'Two-year apprenticeship': 'agreed',
      Visit: 'agreed',
      News: 'agreed',
    },
    comments: [
      {
        page: 'The year course',
        kind: 'comment',
        text: 'Say in the first line that nobody needs to have held a plane before. People ask me that every week.',
      },
      {
        page: 'Fees for the year course',
        kind: 'question',
        text: 'Is the deposit on this page, or on the one for applying?',
        answer: 'On both: the amount stands here, when it is due stands with applying.',
      },
    ],
  },
  {
    name: 'Hal Brannock',
    email: null,
    choices: [{ sketch: YEAR, variant: FACTS }],
    verdicts: {
      Courses: 'agreed',
      'Long courses': 'agreed',
      'The year course': 'agreed',
      'Two-year apprenticeship': 'change',
      Visit: 'change',
      'Steam bending and laminating': 'agreed',
      'Sharpening day': 'agreed',
    },
    comments: [
      {
        page: 'Visit',
        kind: 'comment',
        text: 'The tide table is what sailors come for. Give it a page of its own below this one.',
        answer: 'Good thought. It is in the plan now.',
        isSettled: true,
      },
      {
        page: 'What graduates do',
        kind: 'proposal',
        text: 'Parents ask where our graduates work, not what they do there.',
        proposes: { title: 'Where our graduates work' },
      },
    ],
  },
  {
    name: 'Senna Quill',
    email: 'senna@pellow-quay.example',
    choices: [{ sketch: YEAR, variant: STORY }],
    verdicts: { Courses: 'agreed', 'Evening classes': 'agreed', 'Sharpening day': 'unsure', News: 'agreed' },
    comments: [
      {
        page: 'The year course',
        kind: 'comment',
        text: 'Parents look for this first. Put it above the forty weeks.',
        about: { sketch: YEAR, variant: STORY, box: COSTS },
      },
      {
        page: 'Evening classes',
        kind: 'question',
        text: 'Will the dates of the spring term be here before Christmas?',
      },
    ],
  },
];
