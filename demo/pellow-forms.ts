import { subHours } from 'date-fns';
import type { LabelId } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import { type FormField, type FormSettings, NO_FORM_FIELD_SETTINGS, formIdSchema } from '#core/model/site-form.ts';
import type { AnswerState, Said } from '#core/forms/answer.ts';
import type { Operation } from '#core/operations/operation.ts';

const field = (id: string, name: string, more: Partial<FormField> = {}): FormField => ({
  ...NO_FORM_FIELD_SETTINGS,
  id: id as FieldId,
  name,
  ...more,
});

/** The school's forms, by the ids that texts name them by. */
const formsOf = (
  idOf: (title: string) => PageId,
): readonly { readonly id: string; readonly title: string; readonly settings: Partial<FormSettings> }[] => [
  {
    id: 'application',
    title: 'Application',
    settings: {
      button: 'Send the application',
      leadsTo: idOf('Thank you for applying'),
      mailTo: ['admissions@pellow-quay.example'],
      areMailsWhole: false,
      keptDays: 400,
      fields: [
        field('name', 'Your name', { step: 'About you', isRequired: true, filledWith: 'name' }),
        field('mail', 'Mail address', {
          type: 'mail',
          isRequired: true,
          filledWith: 'mail',
          help: 'We answer to this address within ten days.',
        }),
        field('phone', 'Telephone', { type: 'telephone' }),
        field('course', 'Course', {
          type: 'pages',
          of: 'course' as LabelId,
          step: 'The course',
          isRequired: true,
        }),
        field('built', 'How much have you built?', {
          type: 'choice',
          isRequired: true,
          choices: [
            { id: 'none', name: 'Nothing yet' },
            { id: 'some', name: 'A few things' },
            { id: 'boat', name: 'A boat' },
          ],
        }),
        field('boat', 'Which boat was it?', { shownIf: { field: 'built' as FieldId, test: 'is', value: 'boat' } }),
        field('made', 'Something you have made', {
          type: 'longText',
          isRequired: true,
          help: 'Whatever it was made of. A page is plenty.',
        }),
        field('bursary', 'I would like to ask for a bursary', { type: 'yesNo', step: 'Before you send it' }),
        field('why', 'What the committee should know', {
          type: 'longText',
          isRequired: true,
          shownIf: { field: 'bursary' as FieldId, test: 'is', value: 'yes' },
        }),
        field('picture', 'A picture of it', { type: 'file', help: 'Up to 10 MB. Nobody but Admissions sees it.' }),
        field('agree', 'I have read how the school keeps what I send', {
          type: 'yesNo',
          isRequired: true,
          policy: idOf('Privacy'),
        }),
      ],
    },
  },
  {
    id: 'tour',
    title: 'Tour for a group',
    settings: {
      button: 'Ask for a tour',
      thanks: 'Thank you. The office writes back within two working days, with a day and a time.',
      mailTo: ['desk@pellow-quay.example'],
      keptDays: 120,
      fields: [
        field('group', 'Name of the group', { isRequired: true }),
        field('mail', 'Mail address', { type: 'mail', isRequired: true, filledWith: 'mail' }),
        field('people', 'How many come?', { type: 'number', unit: 'people', isRequired: true }),
        field('day', 'Which day suits you?', { type: 'day' }),
        field('wishes', 'What you would like to see', { type: 'longText' }),
      ],
    },
  },
];

/** The operations that make the forms of the school. */
export const pellowForms = (idOf: (title: string) => PageId): Operation[] =>
  formsOf(idOf).map(({ id, title, settings }) => ({
    name: 'form.add',
    form: formIdSchema.parse(id),
    title,
    settings,
  }));

/** What somebody sent by a form of the school, so many hours ago. */
export interface DemoAnswer {
  readonly form: 'application' | 'tour';
  readonly hoursAgo: number;
  readonly state: AnswerState;
  readonly note: string;
  /** By the ids of fields: a value and its words, where they differ. */
  readonly said: Readonly<Record<string, string | readonly [value: string, words: string]>>;
}

/** @param idOf gives the page with a title */
export const pellowAnswers = (idOf: (title: string) => PageId): readonly DemoAnswer[] => {
  const course = (title: string) => [idOf(title), title] as const;
  return [
    {
      form: 'application',
      hoursAgo: 3,
      state: 'new',
      note: '',
      said: {
        name: 'Tamsin Orchard',
        mail: 'tamsin@orchard.example',
        phone: '01632 960 044',
        course: course('The year course'),
        built: ['some', 'A few things'],
        made: 'A kitchen table from the planks of a shed that had blown down, and a stool that does not wobble.',
        bursary: ['yes', 'Yes'],
        why: 'I work at the cannery until August and have put half of the fee aside.',
        agree: ['yes', 'Yes'],
      },
    },
    {
      form: 'tour',
      hoursAgo: 20,
      state: 'new',
      note: '',
      said: {
        group: 'Rowing club of Saltwick',
        mail: 'club@saltwick.example',
        people: ['14', '14 people'],
        wishes: 'The steam box, if it is lit.',
      },
    },
    {
      form: 'application',
      hoursAgo: 31,
      state: 'begun',
      note: 'Comes for a morning at the bench on Thursday.',
      said: {
        name: 'Piran Lugg',
        mail: 'piran@lugg.example',
        course: course('Two-year apprenticeship'),
        built: ['boat', 'A boat'],
        boat: 'A nine-foot pram, from a drawing of my uncle’s.',
        made: 'The pram. It took two winters, and it floats.',
        bursary: ['no', 'No'],
        agree: ['yes', 'Yes'],
      },
    },
    {
      form: 'application',
      hoursAgo: 170,
      state: 'done',
      note: 'Has a place.',
      said: {
        name: 'Wenna Sprake',
        mail: 'wenna@sprake.example',
        course: course('Build a canoe'),
        built: ['none', 'Nothing yet'],
        made: 'A loaf of bread, every morning for eleven years.',
        bursary: ['no', 'No'],
        agree: ['yes', 'Yes'],
      },
    },
  ];
};

/** What is kept of a demo answer. */
export function keptSaid(
  fields: readonly FormField[],
  { said }: DemoAnswer,
  policy: NonNullable<Said['agreed']>,
): Said[] {
  return fields.flatMap(({ id, name, type }) => {
    const one = said[id];
    if (one === undefined) return [];
    const [value, words] = typeof one === 'string' ? [one, one] : one;
    return [{ field: id, name, type, value, words, ...(id === 'agree' && { agreed: policy }) }];
  });
}

export const sentAt = (now: Date, { hoursAgo }: DemoAnswer): Date => subHours(now, hoursAgo);
