import type { About } from '#core/talk/thread.ts';

interface DemoThread {
  /** The page, by its title. */
  readonly page: string;
  readonly about: About;
  /** Who says it, and what; the first one begins. */
  readonly comments: readonly (readonly [name: string, text: string])[];
  readonly isSettled?: boolean;
}

/** What the colleagues of the school say of its pages. */
export const PELLOW_TALK: readonly DemoThread[] = [
  {
    page: 'The year course',
    about: {
      exact: 'There are sixteen places.',
      prefix: '',
      suffix: ' About half go to people who have never held a plane.',
    },
    comments: [
      ['Mira Sand', '@Ines Carrow, is it still sixteen with the new bench room?'],
      ['Ines Carrow', 'Eighteen from September. Wait until the governors have met.'],
    ],
  },
  {
    page: 'Fees for the year course',
    about: null,
    comments: [['Oona Trask', 'Three people asked at the open day whether it can be paid in twelve parts.']],
  },
  {
    page: 'Visit',
    about: { lens: 'access' },
    comments: [['Teo Brandt', 'Should the map of the moorings be open to everyone? @Ines']],
  },
  {
    page: 'News',
    about: null,
    comments: [
      ['Lis Ardern', 'The three latest stand in the side menu now.'],
      ['Teo Brandt', 'Thank you.'],
    ],
    isSettled: true,
  },
];

/** Who follows which branch, by names and titles. */
export const PELLOW_FOLLOWS: readonly (readonly [name: string, page: string])[] = [
  ['Ines Carrow', 'News'],
  ['Mira Sand', 'Courses'],
];

/** Which branch needs approval, by whom, and what waits for it there. */
export const PELLOW_APPROVAL = {
  branch: 'Online talks',
  role: 'publisher',
  count: 1,
  proposal: {
    by: 'Mira Sand',
    pages: ['Online talks', 'Reading a boat', 'Woods of the coast'],
    note: 'The talks begin on 12 January. The text about the woods is still short; is that enough for now?',
  },
} as const;
