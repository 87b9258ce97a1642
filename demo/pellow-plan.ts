import { addDays, formatISO, startOfISOWeek } from 'date-fns';
import type { PageId } from '#core/model/ids.ts';
import { type GoalId, type PlanChange, READINESS } from '#core/model/plan.ts';
import { type Site, branchOf, childrenOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';

const GOALS = [
  {
    id: 'apply',
    statement: 'People who have never held a plane apply for a course',
    audience: 'Beginners of any age',
    measure: 'Applications for evening and short courses, each term',
  },
  {
    id: 'orders',
    statement: 'Owners of wooden boats bring them here for repair',
    audience: 'Boat owners within a day’s sail',
    measure: 'Enquiries for the restoration berths',
  },
  {
    id: 'visit',
    statement: 'Visitors come on open Saturdays and find the door',
    audience: 'Families and school groups',
    measure: 'Visitors counted at the gate',
  },
  {
    id: 'money',
    statement: 'Nobody stays away for want of money',
    audience: 'Those who need a bursary',
    measure: 'Bursaries asked for, and how many are given',
  },
] as const;

/** What is planned for each section of the school's site: who writes it, from which week on, and what it serves. */
const SECTIONS: Readonly<
  Record<string, { owner: string; week: number; words: number; goals: string[]; done: number }>
> = {
  Courses: { owner: 'Ines Carrow', week: 1, words: 350, goals: ['apply'], done: 2 },
  Apply: { owner: 'Oona Trask', week: 2, words: 280, goals: ['apply', 'money'], done: 1 },
  Visit: { owner: 'Oona Trask', week: -1, words: 220, goals: ['visit'], done: 3 },
  Workshops: { owner: 'Tobias Wren', week: 3, words: 180, goals: ['visit'], done: 1 },
  'Boats built': { owner: 'Marek Holt', week: 4, words: 260, goals: ['orders'], done: 0 },
  People: { owner: 'Ines Carrow', week: 2, words: 120, goals: [], done: 2 },
  News: { owner: 'Sunniva Pell', week: 5, words: 150, goals: [], done: 1 },
  Students: { owner: 'Marek Holt', week: 6, words: 200, goals: [], done: 0 },
  Legal: { owner: 'Oona Trask', week: 7, words: 400, goals: [], done: 0 },
};

const PURPOSES: Readonly<Record<string, string>> = {
  'The year course':
    'Somebody who wants to change their trade understands what forty weeks here mean, and asks for a place.',
  'Fees and paying': 'Says what a course costs in one table, and that it can be paid in ten parts.',
  'Open Saturdays': 'A family decides to come, and knows when the door is open.',
  Bursaries: 'Those who think they cannot pay find out that they may ask.',
};

/** Pages that have none on the former website. */
const NEW_PAGES = [
  'Compare the courses',
  'Thank you for applying',
  'Online talks',
  'Reading a boat',
  'Woods of the coast',
];

const QUESTIONS: readonly (readonly [page: string, text: string, by: string, answer?: string])[] = [
  ['The year course', 'Do we still say sixteen places, or has the new shed made it eighteen?', 'Marek Holt'],
  ['Fees and paying', 'Which fees hold from September? The governors meet on Thursday.', 'Oona Trask'],
  ['Bursaries', 'May we name the fund that gave the money?', 'Ines Carrow', 'Yes, by its full name.'],
  ['The ketch Anna Quill', 'Who has the photographs of the planking?', 'Ines Carrow'],
  ['How to find us', 'Is the number 12 bus still running on Sundays?', 'Oona Trask'],
];

/** The plan of the school's site: its goals, who writes what by when, and what is still asked. `now` is the day it is made. */
export function pellowPlan(site: Site, now: Date): Operation[] {
  const idOf = titlesOf(site);
  const monday = startOfISOWeek(now);
  const plans = new Map<PageId, PlanChange>();
  for (const top of childrenOf(site, null)) {
    const section = SECTIONS[titleOf(site, top)];
    if (!section) continue;
    branchOf(site, top).forEach((id, index) => {
      const node = nodeAt(site, id);
      if (node.type !== 'page') return;
      const step = index % 4 < section.done ? 3 : ((index * 5) % 7) % 3;
      plans.set(id, {
        owner: index % 5 === 4 ? 'Tobias Wren' : section.owner,
        due: formatISO(addDays(monday, section.week * 7 + (index % 3) * 7 + (index % 5)), { representation: 'date' }),
        readiness: READINESS[step]!,
        words: Math.round((section.words * (70 + ((index * 37) % 90))) / 1000) * 10,
        importance: index === 0 ? 1 : index % 3 === 0 ? 2 : 3,
        goals: section.goals as GoalId[],
      });
    });
  }
  const add = (title: string, change: PlanChange) => {
    const id = idOf(title);
    plans.set(id, { ...plans.get(id), ...change });
  };
  for (const [title, purpose] of Object.entries(PURPOSES)) add(title, { purpose });
  for (const title of NEW_PAGES) add(title, { origin: 'new' });
  QUESTIONS.forEach(([title, text, by, answer], index) =>
    add(title, {
      questions: {
        [`q${index + 1}`]: {
          text,
          by,
          at: addDays(now, index - 8).toISOString(),
          answer: answer ?? '',
          settledBy: answer ? 'Oona Trask' : null,
        },
      },
    }),
  );
  add('Fees and paying', { references: [idOf('Bursaries'), idOf('Fees for the year course')] });
  return [
    ...GOALS.map(({ id, ...goal }): Operation => ({ name: 'goal.add', goal: id as GoalId, ...goal })),
    ...[...plans].map(([page, plan]): Operation => ({ name: 'page.set', page, fields: { plan } })),
  ];
}

const titleOf = (site: Site, id: PageId): string => textIn(nodeAt(site, id).title, site.settings.language);

function titlesOf(site: Site): (title: string) => PageId {
  const ids = new Map(branchOf(site, null).map((id) => [titleOf(site, id), id]));
  return (title) => {
    const id = ids.get(title);
    if (id === undefined) throw new Error(`The demo data has no page ‘${title}’.`);
    return id;
  };
}
