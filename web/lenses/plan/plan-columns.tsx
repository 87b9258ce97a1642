import { readOwnDay, writtenDay } from '../../fields/own-days.ts';
import { planTotalsOf } from '#core/derive/plan-totals.ts';
import {
  IMPORTANCE,
  type Importance,
  MAX_OLD_ADDRESS_LENGTH,
  MAX_OWNER_LENGTH,
  MAX_PURPOSE_LENGTH,
  MAX_WORDS,
  ORIGINS,
  type Origin,
  READINESS,
  type Readiness,
  openQuestions,
  planOf,
} from '#core/model/plan.ts';
import type { Site } from '#core/model/site.ts';
import { ChoiceCell, EntryCell } from '../../tree/cells.tsx';
import type { Column } from '../../tree/columns.tsx';
import {
  IMPORTANCE_WORDS,
  ORIGIN_WORDS,
  OriginSign,
  READINESS_WORDS,
  dayWords,
  todayHere,
} from '../../tree/plan-words.tsx';
import { commentsColumn, feedbackColumn, verdictColumn } from '../../tree/feedback-columns.tsx';
import { ReadinessBar } from '../../tree/readiness-bar.tsx';
import { numberWords } from '../../ui/number-words.ts';

/** Everybody who owns a page of the site, by name. */
export function ownersOf(site: Site): string[] {
  const owners = new Set<string>();
  site.nodes.forEach((node) => {
    if (node.plan?.owner && node.removedWith === null) owners.add(node.plan.owner);
  });
  return [...owners].sort((a, b) => a.localeCompare(b));
}

/** The columns of the Plan lens, the ones that give way last first. */
export const PLAN_COLUMNS: readonly Column[] = [
  {
    key: 'origin',
    edits: 'plan',
    name: 'Origin',
    width: 104,
    isMinor: true,
    values: ({ derived }, row) => [planOf(derived.outline.nodes[row]!).origin],
    cell: ([value], context) => {
      const origin = value as Origin | null;
      return (
        <ChoiceCell
          field="Origin"
          words={origin === null ? '–' : ORIGIN_WORDS[origin]}
          sign={origin !== null && <OriginSign origin={origin} />}
          look={origin === null ? 'text-quiet' : ''}
          label="Where it comes from"
          context={context}
          choices={[
            ...ORIGINS.map((one) => ({
              words: ORIGIN_WORDS[one],
              isChosen: one === origin,
              fields: { plan: { origin: one } },
            })),
            { words: 'Not set', isChosen: origin === null, fields: { plan: { origin: null } } },
          ]}
        />
      );
    },
  },
  {
    key: 'owner',
    edits: 'plan',
    name: 'Owner',
    width: 98,
    isMinor: true,
    values: ({ derived }, row) => [planOf(derived.outline.nodes[row]!).owner],
    cell: ([owner], context) => (
      <EntryCell
        field="Owner"
        type="text"
        value={owner as string}
        words={owner === '' ? '–' : (owner as string)}
        look={owner === '' ? 'text-quiet' : ''}
        longest={MAX_OWNER_LENGTH}
        suggestions={() => ownersOf(context.latest().site)}
        fieldsOf={(text) => ({ plan: { owner: text } })}
        context={context}
      />
    ),
  },
  {
    key: 'due',
    edits: 'plan',
    name: 'Due',
    width: 82,
    isMinor: true,
    values: ({ derived }, row) => {
      const plan = planOf(derived.outline.nodes[row]!);
      const below = plan.due === null ? planTotalsOf(derived.outline).due[row]! : null;
      const first = plan.due ?? below;
      return [plan.due, below, first !== null && plan.readiness !== 'ready' && first < todayHere()];
    },
    cell: ([due, below, isLate], context) => (
      <EntryCell
        field={isLate ? 'Due, late' : 'Due'}
        type="text"
        value={writtenDay((due as string | null) ?? '')}
        words={due !== null ? dayWords(due as string) : below !== null ? `from ${dayWords(below as string)}` : '–'}
        look={isLate ? 'font-medium text-attention' : due === null ? 'text-quiet' : ''}
        fieldsOf={(text) => {
          const day = text.trim() === '' ? null : readOwnDay(text);
          return day === null && text.trim() !== '' ? null : { plan: { due: day } };
        }}
        context={context}
      />
    ),
  },
  {
    key: 'readiness',
    edits: 'plan',
    name: 'Readiness',
    width: 100,
    values: ({ derived }, row) => {
      const node = derived.outline.nodes[row]!;
      return [node.type === 'page' ? planOf(node).readiness : null];
    },
    cell: ([value], context) => {
      const readiness = value as Readiness | null;
      if (readiness === null) return null;
      return (
        <ChoiceCell
          field="Readiness"
          words={READINESS_WORDS[readiness]}
          look={readiness === 'ready' ? 'text-accent' : readiness === 'not-started' ? 'text-quiet' : ''}
          label="How far it is"
          context={context}
          choices={READINESS.map((one) => ({
            words: READINESS_WORDS[one],
            isChosen: one === readiness,
            fields: { plan: { readiness: one } },
          }))}
        />
      );
    },
  },
  {
    key: 'branch',
    name: 'Branch ready',
    width: 102,
    isMinor: true,
    values: ({ derived }, row) => {
      const { outline } = derived;
      if (outline.end[row] === row + 1) return [];
      const { readiness } = planTotalsOf(outline);
      return READINESS.map((_, at) => readiness[row * READINESS.length + at]!);
    },
    cell: (values) => {
      const counts = values as readonly number[];
      const total = counts.reduce((sum, count) => sum + count, 0);
      if (total === 0) return null;
      const words = READINESS.map((one, at) => `${counts[at]} ${READINESS_WORDS[one].toLowerCase()}`).join(', ');
      return (
        <span className="flex items-center gap-1.5 text-small whitespace-nowrap" title={words}>
          <ReadinessBar counts={counts} width={38} />
          <span className="text-quiet">
            {counts[READINESS.length - 1]} of {total}
          </span>
          <span className="sr-only">{words}</span>
        </span>
      );
    },
  },
  {
    key: 'sections',
    name: 'Sections',
    width: 86,
    isMinor: true,
    values: ({ sketched }, row) =>
      sketched === null
        ? []
        : [
            sketched.planned[row]!,
            sketched.written[row]!,
            sketched.plannedInBranch[row]!,
            sketched.writtenInBranch[row]!,
            sketched.open[row]!,
          ],
    cell: ([planned, written, all, done, open]) => {
      if (planned === undefined) return null;
      const below = `In this branch ${String(done)} of ${String(all)} planned sections are written${open === 0 ? '' : `, ${String(open)} sketches wait for a choice`}`;
      const isOwn = planned !== -1;
      if (!isOwn && all === 0 && open === 0) return null;
      return (
        <span className="truncate" title={below}>
          {isOwn ? (
            <span className={written === planned && planned !== 0 ? 'text-accent' : ''}>
              {written} of {planned}
            </span>
          ) : all !== 0 ? (
            <span className="text-quiet">
              {done} of {all}
              <span className="sr-only"> below</span>
            </span>
          ) : (
            <span className="text-attention">{open} open</span>
          )}
        </span>
      );
    },
  },
  {
    key: 'questions',
    name: 'Questions',
    width: 76,
    isMinor: true,
    values: ({ derived }, row) => [
      openQuestions(planOf(derived.outline.nodes[row]!)),
      planTotalsOf(derived.outline).questions[row]!,
    ],
    cell: ([own, all]) => {
      const below = Number(all) - Number(own);
      if (all === 0) return null;
      return (
        <span className="truncate" title={`${own} open here, ${below} below`}>
          {own !== 0 && <span className="font-medium text-attention">{own} open</span>}
          {below > 0 && <span className="text-quiet">{own === 0 ? `${below} below` : `, ${below} below`}</span>}
        </span>
      );
    },
  },
  feedbackColumn,
  {
    key: 'importance',
    edits: 'plan',
    name: 'Importance',
    width: 84,
    isMinor: true,
    values: ({ derived }, row) => {
      const node = derived.outline.nodes[row]!;
      return [node.type === 'page', planOf(node).importance];
    },
    cell: ([isPage, value], context) => {
      const importance = value as Importance | null;
      if (isPage !== true) return null;
      return (
        <ChoiceCell
          field="Importance"
          words={importance === null ? '–' : String(importance)}
          look={importance === null ? 'text-quiet' : importance === 1 ? 'font-semibold' : ''}
          label="How quickly it must be found"
          context={context}
          choices={[
            ...IMPORTANCE.map((one) => ({
              words: IMPORTANCE_WORDS[one],
              isChosen: one === importance,
              fields: { plan: { importance: one } },
            })),
            { words: 'Not set', isChosen: importance === null, fields: { plan: { importance: null } } },
          ]}
        />
      );
    },
  },
  {
    key: 'words',
    edits: 'plan',
    name: 'Words',
    width: 68,
    isMinor: true,
    values: ({ derived }, row) => [planOf(derived.outline.nodes[row]!).words],
    cell: ([words], context) => (
      <EntryCell
        field="Words expected"
        type="number"
        value={words === null ? '' : String(words)}
        words={words === null ? '–' : numberWords(Number(words))}
        look={words === null ? 'text-quiet' : ''}
        fieldsOf={(text) => {
          const count = text.trim() === '' ? null : Math.round(Number(text));
          return count === null || (count >= 0 && count <= MAX_WORDS) ? { plan: { words: count } } : null;
        }}
        context={context}
      />
    ),
  },
  {
    key: 'purpose',
    edits: 'plan',
    name: 'Purpose',
    width: 150,
    grows: true,
    isMinor: true,
    values: ({ derived }, row) => [planOf(derived.outline.nodes[row]!).purpose],
    cell: ([purpose], context) => (
      <EntryCell
        field="Purpose"
        type="text"
        value={purpose as string}
        words={purpose === '' ? '–' : (purpose as string)}
        look={purpose === '' ? 'text-quiet' : ''}
        longest={MAX_PURPOSE_LENGTH}
        fieldsOf={(text) => ({ plan: { purpose: text } })}
        context={context}
      />
    ),
  },
  {
    key: 'old-addresses',
    edits: 'plan',
    name: 'Old addresses',
    width: 150,
    grows: true,
    isMinor: true,
    values: ({ derived }, row) => [planOf(derived.outline.nodes[row]!).oldAddresses.join(' ')],
    cell: ([addresses], context) => (
      <EntryCell
        field="Old addresses"
        type="text"
        value={addresses as string}
        words={addresses === '' ? '–' : (addresses as string)}
        look={addresses === '' ? 'text-quiet' : 'font-mono text-small'}
        longest={20 * MAX_OLD_ADDRESS_LENGTH}
        fieldsOf={(text) => ({ plan: { oldAddresses: text.split(/\s+/).filter(Boolean) } })}
        context={context}
      />
    ),
  },
];

/** The columns of the Plan lens; that of sections where the site has sketches. */
export const planColumns = ({ sketches }: Site): readonly Column[] =>
  sketches.length > 0 ? PLAN_COLUMNS : WITHOUT_SECTIONS;
const WITHOUT_SECTIONS = PLAN_COLUMNS.filter(({ key }) => key !== 'sections');

/** What guests see of the plan, beside their own verdict. */
const FOR_GUESTS = ['origin', 'due', 'readiness', 'words', 'purpose', 'old-addresses'];
export const SHARED_COLUMNS: readonly Column[] = [
  verdictColumn,
  commentsColumn,
  ...PLAN_COLUMNS.filter(({ key }) => FOR_GUESTS.includes(key)).map((column) => ({ ...column, isMinor: true })),
];
