import type { PageId } from '../model/ids.ts';
import { type Importance, type Readiness, planOf } from '../model/plan.ts';
import { type Site, ancestorsOf } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import type { Derived } from './derived.ts';

/** So many words a week is what one person writes beside other work; more is too much. */
export const WORDS_A_WEEK = 1500;
/** What a page counts of which nobody said how many words it will have. */
export const USUAL_WORDS = 250;

/** One page that has to be written by a day. */
export interface Task {
  readonly page: PageId;
  readonly title: string;
  /** The titles of the pages above, from the top. */
  readonly above: readonly string[];
  readonly owner: string;
  readonly due: string;
  readonly readiness: Readiness;
  readonly importance: Importance | null;
  /** How many words it will have, as it is said or as usual. */
  readonly words: number;
  readonly isLate: boolean;
  /** Whether the site cannot open without it: it is not ready, and it is of the first importance or stands at the top. */
  readonly blocksOpening: boolean;
}

/** What one owner has to write in one week. */
export interface WeekLoad {
  readonly tasks: readonly Task[];
  /** Words that are still to be written: of pages that are not ready. */
  readonly words: number;
  readonly isTooMuch: boolean;
}

export interface Schedule {
  /** Mondays, `2027-03-01`, from the first week with a task to the last, without gaps. */
  readonly weeks: readonly string[];
  /** Owners by name; the empty name, for tasks that nobody has, stands last. */
  readonly owners: readonly { readonly name: string; readonly weeks: ReadonlyMap<string, WeekLoad> }[];
  readonly tasks: readonly Task[];
  readonly late: readonly Task[];
  readonly blocking: readonly Task[];
  /** Pages that are not ready and have no due day. */
  readonly undated: number;
}

/** Who has to write what by when. Days are days of the calendar, compared as text; `today` is one. */
export function scheduleOf(site: Site, { outline }: Derived, today: string): Schedule {
  const { language } = site.settings;
  const tasks: Task[] = [];
  let undated = 0;
  outline.nodes.forEach((node, row) => {
    if (node.type !== 'page') return;
    const plan = planOf(node);
    const isReady = plan.readiness === 'ready';
    if (plan.due === null) {
      if (!isReady) undated++;
      return;
    }
    tasks.push({
      page: node.id,
      title: textIn(node.title, language),
      above: ancestorsOf(site, node.id)
        .map((above) => textIn(above.title, language))
        .reverse(),
      owner: plan.owner,
      due: plan.due,
      readiness: plan.readiness,
      importance: plan.importance,
      words: plan.words ?? USUAL_WORDS,
      isLate: !isReady && plan.due < today,
      blocksOpening: !isReady && (plan.importance === 1 || outline.depth[row] === 0),
    });
  });
  tasks.sort((a, b) => compare(a.due, b.due) || compare(a.title, b.title) || compare(a.page, b.page));
  const byOwner = new Map<string, Map<string, Task[]>>();
  for (const task of tasks) {
    let weeks = byOwner.get(task.owner);
    if (!weeks) byOwner.set(task.owner, (weeks = new Map()));
    const week = mondayOf(task.due);
    weeks.set(week, [...(weeks.get(week) ?? []), task]);
  }
  return {
    weeks: weeksBetween(tasks[0]?.due, tasks.at(-1)?.due),
    owners: [...byOwner]
      .sort(([a], [b]) => (a === '' ? 1 : b === '' ? -1 : a.localeCompare(b)))
      .map(([name, weeks]) => ({
        name,
        weeks: new Map([...weeks].map(([week, mine]) => [week, loadOf(mine)])),
      })),
    tasks,
    late: tasks.filter(({ isLate }) => isLate),
    blocking: tasks.filter(({ blocksOpening }) => blocksOpening),
    undated,
  };
}

function loadOf(tasks: readonly Task[]): WeekLoad {
  const words = tasks.reduce((sum, task) => sum + (task.readiness === 'ready' ? 0 : task.words), 0);
  return { tasks, words, isTooMuch: words > WORDS_A_WEEK };
}

const DAY_MS = 86_400_000;
const MAX_WEEKS = 520;

/** The Monday of the week of a day, both as `2027-03-01`. */
export function mondayOf(day: string): string {
  const date = new Date(`${day}T00:00:00Z`);
  return dayOf(date.getTime() - ((date.getUTCDay() + 6) % 7) * DAY_MS);
}

function weeksBetween(first: string | undefined, last: string | undefined): string[] {
  if (first === undefined || last === undefined) return [];
  const weeks: string[] = [];
  const end = mondayOf(last);
  for (
    let week = mondayOf(first);
    week <= end && weeks.length < MAX_WEEKS;
    week = dayOf(Date.parse(`${week}T00:00:00Z`) + 7 * DAY_MS)
  )
    weeks.push(week);
  return weeks;
}

const dayOf = (time: number): string => new Date(time).toISOString().slice(0, 10);
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
