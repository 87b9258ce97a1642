import type { ContentId } from '#core/model/ids.ts';
import { sharedIdSchema } from '#core/model/shared-section.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { DemoNode } from './demo-tree.ts';

/** What the school says on several pages, by its name and the id that texts name it by. */
const SHARED: readonly { readonly id: string; readonly name: string; readonly text: readonly string[] }[] = [
  {
    id: 'ferry',
    name: 'Here by ferry',
    text: [
      '## Here by ferry',
      'From May to September the Tern Sound ferry stops at our quay four times a day; say ‘the boatyard’ when you pay. In winter it stops at the town quay, twelve minutes on foot.',
      '@file timetable: Timetable of the ferry',
    ],
  },
  {
    id: 'firstday',
    name: 'For the first day',
    text: [
      '! Bring stout shoes, an apron and something to eat. Tools are lent; safety glasses are yours to keep. Call {telephone} if you come late.',
    ],
  },
];

/** The operations that make the shared sections of the school. @param contentOf gives the id of a text that it keeps */
export const pellowShared = (contentOf: (blocks: readonly string[]) => ContentId): Operation[] =>
  SHARED.map(({ id, name, text }) => ({
    name: 'shared.add',
    shared: sharedIdSchema.parse(id),
    title: name,
    content: contentOf(text),
  }));

/** The open days, month by month. */
export const OPEN_DAYS = '% {"from":"site","kind":"open","look":"month","fields":["when"]}';

/** What stands on pages of the school after their first paragraph, by the pages' titles. */
const SECTIONS: Readonly<Record<string, readonly string[]>> = {
  'Pellow Quay School of Boatbuilding': ['@wide quay: The sheds at high water.', '[[See the courses]](page:pq002)'],
  Courses: ['@gallery frames bench slipway sails'],
  'The year course': [
    '@right frames: Week thirty: the ribs are in.',
    '@file prospectus: Prospectus of the year course',
    '[[How to apply]](page:pq028)',
  ],
  'Fees for the year course': [
    '| What | In one part | In ten parts\n| Teaching and timber | 6,400 | 650 a month\n| Loan of tools | included | included\n| Boots, apron, pencils | about 140 | your own',
  ],
  'Term by term': [
    '| Term | Weeks | Ends with\n| One | 1 to 13 | a pram\n| Two | 14 to 27 | the moulds\n| Three | 28 to 40 | the launch',
  ],
  'Two-year apprenticeship': [
    '! Apprentices are paid by their yard from the first week.',
    'Whoever begins here can change yards once, with our help.',
  ],
  'Short courses': ['@ bench: An edge that shaves.', '= firstday'],
  'Build a canoe': ['? What if my canoe does not fit on the roof?\nThe ferry takes it for the price of a bicycle.'],
  'Sharpening day': ['@left bench: Bring everything blunt.'],
  'Family boat week': [
    '= firstday',
    '@ sails: Friday afternoon, and everything floats.',
    '!! Young people need a life jacket that fits: try yours at home.',
  ],
  'Evening classes': ['= firstday', '[[See the dates]](page:pq025)'],
  'How to apply': [
    '& application',
    '? Would you rather write by hand?\nPrint the form, fill it in and post it: Admissions, Pellow Quay School, Cooper’s Hard.',
    '@file form: Application form',
    '!! Forms that arrive without a reference wait until it comes.',
  ],
  'Entry requirements': [
    '? Do I need a certificate in carpentry?\nNo. A page about something you made with your hands is worth more to us.',
  ],
  'Open Saturdays': ['@right slipway: The slip is open to look at.', '= ferry', '[[How to find us]](page:pq040)'],
  Visit: [OPEN_DAYS],
  'Guided tours': [
    '| Day | From the gate | Length\n| Monday to Friday | eleven o’clock | an hour\n| First Saturday | every half hour | forty minutes',
    '## Ask for a tour',
    '& tour',
  ],
  'How to find us': [
    '@ ferry: The ferry stops at our own quay from May.',
    '= ferry',
    'The gate is on the landward side, and it is never locked in daylight.',
  ],
  'School groups': [
    '? How large may a group be?\nThirty pupils with four adults, in two parts that change places at noon.',
  ],
  'The long shed': ['@wide frames: Room for two hulls of forty feet.'],
  'The sail loft': ['! The floor is kept for canvas: leave your shoes on the stairs.'],
  'Clinker dinghies': ['@gallery sails frames slipway'],
  Marigold: ['@ slipway: An hour before she went down.'],
  'Marigold goes down the slip': ['@ slipway: Marigold on the slip, on the morning of her launch.'],
  'The ferry stops at the quay again': [
    '@left ferry: Four times a day from May.',
    '@file timetable: The timetable as a file',
  ],
  Bursaries: ['[[How to apply]](page:pq028)'],
  Lodgings: [
    '= ferry',
    '| Where | On foot | From\n| The pilots’ house | 4 minutes | 32 a night\n| Cooper’s Hard 9 | 2 minutes | 41 a night',
  ],
  'Borrowing tools': ['!! Japanese saws are not lent: they come back in two parts.'],
};

/** The pages of the school with their sections. */
export const withSections = (nodes: readonly DemoNode[]): readonly DemoNode[] =>
  nodes.map((node) => {
    const more = node.type === 'page' ? (SECTIONS[node.title] ?? []) : [];
    const [first, ...rest] = node.text;
    return {
      ...node,
      text: first === undefined ? more : [first, ...more, ...rest],
      below: withSections(node.below),
    };
  });
