import { addDays, format } from 'date-fns';
import type { LabelId } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { DetailsChange } from '#core/model/details.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { FieldId, FieldSettings } from '#core/model/kind-field.ts';
import type { About, LabelRule } from '#core/model/page-label.ts';
import type { Operation } from '#core/operations/operation.ts';

interface DemoField extends Partial<FieldSettings> {
  readonly id: string;
  readonly title: string;
}

interface DemoKind {
  readonly id: string;
  readonly title: string;
  readonly about: About;
  readonly rule?: LabelRule;
  readonly fields?: readonly DemoField[];
  /** What its pages begin with, as blocks of a demo text. */
  readonly outline?: readonly string[];
  /** Its pages by their titles, each with what it says in the fields. */
  readonly pages: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

const LEVELS = [
  { id: 'first', name: 'For beginners' },
  { id: 'some', name: 'Some experience' },
  { id: 'much', name: 'For people who build' },
];

const course = (
  starts: number,
  days: number,
  price: number,
  places: number,
  level: 'first' | 'some' | 'much',
  ...teachers: readonly string[]
): Record<string, string> => ({
  dates: `${starts} ${days}`,
  price: `${price} GBP`,
  places: String(places),
  level,
  teachers: teachers.join('; '),
});
const person = (position: string, telephone: string, mail: string, works: string): Record<string, string> => ({
  position,
  telephone: `01632 960 ${telephone}`,
  mail: `${mail}@pellow-quay.example`,
  works,
});
const boat = (size: string, timber: string, launched: string, builders: string): Record<string, string> => ({
  size,
  timber,
  launched,
  builders,
});

/** Pages on which nobody has written: they follow the outline of their kind. */
const AS_OUTLINED: ReadonlySet<string> = new Set(['Thursday: open bench', 'Wednesday: rope and canvas']);

/** The kinds of the school's pages, with their fields. Dates of courses are the days from now on which they begin, and how long they last. */
const KINDS: readonly DemoKind[] = [
  {
    id: 'course',
    title: 'Course',
    about: 'course',
    outline: [
      'You work on a real boat or a part of one, in a group of eight at most, and take home what you make.',
      '{fields}',
      '## What to bring',
      'Stout shoes, an apron and something to eat. We lend the tools.',
    ],
    fields: [
      { id: 'dates', title: 'Dates', type: 'period', property: 'hasCourseInstance' },
      { id: 'price', title: 'Price', type: 'money', currency: 'GBP', isRequired: true, property: 'offers' },
      { id: 'places', title: 'Places left', type: 'number', help: 'Count those who have paid.' },
      { id: 'level', title: 'Level', type: 'choice', choices: LEVELS, property: 'educationalLevel' },
      {
        id: 'teachers',
        title: 'Teachers',
        type: 'pages',
        isSeveral: true,
        of: 'person' as LabelId,
        backName: 'Courses',
        property: 'instructor',
      },
    ],
    pages: {
      'The year course': course(63, 280, 9400, 5, 'first', 'Marek Holt', 'Ines Carrow'),
      'Two-year apprenticeship': { price: '0 GBP', level: 'some', teachers: 'Marek Holt' },
      'Restoration diploma': course(70, 270, 8100, 3, 'much', 'Tobias Wren'),
      'Build a canoe': course(110, 9, 980, 2, 'first', 'Marek Holt'),
      'Oars and paddles': course(54, 2, 210, 6, 'first', 'Ines Carrow'),
      Lofting: course(82, 3, 320, 4, 'some', 'Ines Carrow'),
      'Steam bending': course(33, 2, 240, 0, 'some', 'Marek Holt'),
      'Sharpening day': course(19, 1, 85, 8, 'first', 'Marek Holt'),
      'Sailmaking by hand': course(96, 5, 540, 5, 'first', 'Sunniva Pell'),
      'Family boat week': course(250, 6, 690, 12, 'first', 'Sunniva Pell', 'Marek Holt'),
      'Monday: first tools': course(45, 70, 160, 3, 'first', 'Marek Holt'),
      'Tuesday: half models': course(46, 70, 160, 7, 'first', 'Tobias Wren'),
      'Wednesday: rope and canvas': course(47, 70, 175, 1, 'first', 'Sunniva Pell'),
      'Thursday: open bench': {},
    },
  },
  {
    id: 'person',
    title: 'Person',
    about: 'person',
    fields: [
      { id: 'position', title: 'Position', type: 'text', isRequired: true, property: 'jobTitle' },
      { id: 'telephone', title: 'Telephone', type: 'telephone', property: 'telephone' },
      { id: 'mail', title: 'Mail', type: 'mail', property: 'email' },
      { id: 'works', title: 'Works on', type: 'text', property: 'knowsAbout' },
    ],
    pages: {
      'Ines Carrow': person('Head of the school', '421', 'ines', 'Lofting, oars'),
      'Marek Holt': person('Instructor', '422', 'marek', 'Clinker planking, steam bending'),
      'Sunniva Pell': person('Instructor', '423', 'sunniva', 'Sails and rope'),
      'Tobias Wren': person('Instructor', '424', 'tobias', 'Restoration, half models'),
      'Oona Trask': person('Admissions', '425', 'oona', 'Applications, lodgings'),
      'Bram Calloway': person('Stores', '426', 'bram', 'Timber and fastenings'),
    },
  },
  {
    id: 'boat',
    title: 'Boat',
    about: 'page',
    fields: [
      { id: 'size', title: 'Length', type: 'number', unit: 'm' },
      { id: 'timber', title: 'Timber', type: 'text' },
      { id: 'launched', title: 'Launched', type: 'day' },
      { id: 'builders', title: 'Built under', type: 'pages', of: 'person' as LabelId, backName: 'Boats' },
    ],
    pages: {
      Marigold: boat('3.7', 'Larch on oak', '2026-06-13', 'Marek Holt'),
      'Second Helping': boat('4.3', 'Larch on oak', '2025-06-21', 'Marek Holt'),
      'Plain Jane': boat('3.4', 'Larch on oak', '2024-06-15', 'Ines Carrow'),
      'The pilot gig Teal': boat('9.8', 'Elm', '2025-09-02', 'Tobias Wren'),
      'The ketch Anna Quill': boat('14.6', 'Pitch pine on oak', '2023-08-19', 'Tobias Wren'),
    },
  },
  {
    id: 'workshop',
    title: 'Workshop',
    about: 'place',
    fields: [
      {
        id: 'seats',
        title: 'Benches',
        type: 'number',
        property: 'maximumAttendeeCapacity',
      },
    ],
    pages: {
      'The long shed': { seats: '16' },
      'The small shed': { seats: '6' },
      'The smithy': { seats: '2' },
      'The sail loft': { seats: '8' },
      'The timber yard': {},
      'The drawing office': { seats: '4' },
    },
  },
  {
    id: 'open',
    title: 'Open day',
    about: 'event',
    fields: [
      { id: 'when', title: 'When', type: 'repeats', property: 'eventSchedule' },
      { id: 'booking', title: 'To be booked', type: 'yesNo' },
    ],
    pages: {
      'Open Saturdays': { when: '2026-01-03 10:00-16:00 FREQ=MONTHLY;BYDAY=1SA', booking: 'no' },
    },
  },
  {
    id: 'rules',
    title: 'House rules',
    about: 'page',
    rule: { only: ['students', 'staff'] as AudienceId[], search: 'page' },
    pages: { 'Saw room rules': {}, 'Borrowing tools': {} },
  },
];

/** The kinds of the school's pages, the fields of each, and what its pages say in them. */
export function pellowKinds(
  idOf: (title: string) => PageId,
  now: Date,
  contentOf: (blocks: readonly string[]) => ContentId,
): Operation[] {
  const day = (inDays: number) => format(addDays(now, inDays), 'yyyy-MM-dd');
  const valueOf = (field: DemoField, said: string): string => {
    if (field.type === 'period') {
      const [starts = 0, days = 1] = said.split(' ').map(Number);
      return `${day(starts)}/${day(starts + days - 1)}`;
    }
    return field.type === 'pages' ? said.split('; ').map(idOf).join(' ') : said;
  };
  const labels = KINDS.map(({ id, title, about, rule, outline }): Operation => ({
    name: 'label.add',
    label: id as LabelId,
    title,
    about,
    ...(rule && { rule }),
    ...(outline && { pageOutline: contentOf(outline) }),
  }));
  const rest = KINDS.flatMap(({ id: label, fields = [], outline, pages }): Operation[] => [
    ...fields.map(({ id, title, ...settings }): Operation => ({
      name: 'field.add',
      label: label as LabelId,
      field: id as FieldId,
      title,
      settings,
    })),
    ...Object.entries(pages).map(([title, said]): Operation => {
      const details = Object.fromEntries(
        fields.flatMap((field) => {
          const words = said[field.id];
          return words === undefined ? [] : [[field.id, valueOf(field, words)]];
        }),
      ) as DetailsChange;
      return {
        name: 'page.set',
        page: idOf(title),
        fields: {
          access: { labels: [label as LabelId] },
          ...(Object.keys(details).length > 0 && { details }),
          ...(outline && AS_OUTLINED.has(title) && { content: contentOf(outline) }),
        },
      };
    }),
  ]);
  return [...labels, ...rest];
}
