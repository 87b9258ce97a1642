import type { AccessChange, StandsIn } from './access.ts';
import type { FrameChange } from './frame.ts';
import type { PlanChange } from './plan.ts';

/** What was set of a rule, in words, after the name of who did it. `name` is that of the page. */
export function accessWords(access: AccessChange, name: string): string {
  const set = Object.keys(access);
  if (set.every((field) => field === 'engines'))
    return access.engines === 'no' ? `offered ${name} to search engines again` : `left ${name} out of search engines`;
  if (set.every((field) => field === 'search'))
    return access.search === 'no' ? `let site search find ${name} again` : `left ${name} out of site search`;
  if (set.every((field) => field === 'passphrase'))
    return access.passphrase === null
      ? `removed the passphrase of ${name}`
      : `set a passphrase for ${name} and what is below`;
  if (set.every((field) => field === 'labels')) return `changed the labels or the kind of ${name}`;
  if (set.every((field) => field === 'menuFor')) return `set who sees the menu entry of ${name}`;
  if (set.every((field) => field === 'standsIn'))
    return access.standsIn === null
      ? `made ${name} an ordinary page`
      : `made ${name} ${STANDS_IN_WORDS[access.standsIn!]}`;
  return `set who can open ${name}`;
}

const STANDS_IN_WORDS: Readonly<Record<StandsIn, string>> = {
  'sign-in': 'the sign-in page',
  'no-access': 'the no-access page',
  'not-found': 'the not-found page',
  account: 'the account page',
};

/** What was set of a frame, in words. */
export function frameWords(frame: FrameChange, name: string): string {
  const words: Readonly<Record<keyof FrameChange, string>> = {
    layout: 'layout',
    trail: 'trail',
    listing: 'list of pages',
    date: 'date',
  };
  return `set the ${listed((Object.keys(frame) as (keyof FrameChange)[]).map((field) => words[field]))} of ${name}`;
}

/** What was set of a plan, in words. */
export function planWords({ questions, ...plan }: PlanChange, name: string): string {
  const set = Object.keys(plan) as (keyof typeof PLAN_WORDS)[];
  const asked = Object.values(questions ?? {});
  const parts = set.length === 0 ? [] : [`set the ${listed(set.map((field) => PLAN_WORDS[field]))} of ${name}`];
  if (asked.length > 0) {
    const settled = asked.filter((question) => question?.settledBy != null).length;
    const one = settled === asked.length ? 'settled a question' : asked.includes(null) ? 'removed a question' : 'asked';
    parts.push(asked.length === 1 ? `${one} about ${name}` : `changed ${asked.length} questions about ${name}`);
  }
  return parts.join(' and ') || `left the plan of ${name} as it was`;
}

const PLAN_WORDS = {
  origin: 'origin',
  purpose: 'purpose',
  owner: 'owner',
  due: 'due date',
  readiness: 'readiness',
  importance: 'importance',
  words: 'words expected',
  goals: 'goals',
  oldAddresses: 'old addresses',
  references: 'references',
  notes: 'notes',
  sketch: 'sketch',
} as const;

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
