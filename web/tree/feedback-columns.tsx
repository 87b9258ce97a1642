import { STANDINGS, type Standing } from '#core/derive/feedback-totals.ts';
import { VERDICTS, type Verdict } from '#core/model/feedback.ts';
import type { Column } from './columns.tsx';
import {
  STANDING_FILTER_WORDS,
  STANDING_WORDS,
  VERDICT_MEANING,
  VERDICT_WORDS,
  VerdictSign,
} from './feedback-words.tsx';

/** What those whom the plan was shared with say of the page, for its manager. */
export const feedbackColumn: Column = {
  key: 'feedback',
  name: 'Feedback',
  width: 78,
  isMinor: true,
  values: ({ feedback }, row) => {
    if (feedback === null) return [null, 0, 0];
    const { standing, open, openInBranch, pages } = feedback.totals;
    const counts = STANDINGS.map((_, at) => pages[row * STANDINGS.length + at]!);
    return [standing[row]!, open[row]!, openInBranch[row]!, ...counts];
  },
  cell: ([standing, own, inBranch, ...counts]) => {
    const said = STANDINGS.map((one, at) => `${String(counts[at])} ${STANDING_WORDS[one]}`).join(', ');
    // What waits comes first, wherever in the branch it is.
    const [words, look] =
      own !== 0
        ? [`${inBranch} open`, 'font-medium text-attention']
        : inBranch !== 0
          ? [`${inBranch} below`, 'text-quiet']
          : standing === null || standing === 'unseen'
            ? ['', '']
            : [STANDING_FILTER_WORDS[standing as Standing], standing === 'agreed' ? 'text-accent' : 'text-quiet'];
    return (
      <span className={`truncate ${look}`} title={`In this branch: ${said}`}>
        {words}
      </span>
    );
  },
};

/** The guest's own verdict: pressing one gives it, pressing it again takes it back. */
export const verdictColumn: Column = {
  key: 'verdict',
  name: 'Your verdict',
  width: 128,
  values: ({ guest }, row) => [guest?.verdicts[row] ?? null],
  cell: ([mine], { page, title, latest }) => (
    <span role="group" aria-label={`Your verdict: ${title}`} className="-ml-1 inline-flex items-center gap-0.5">
      {VERDICTS.map((verdict) => (
        <button
          key={verdict}
          type="button"
          tabIndex={-1}
          aria-pressed={mine === verdict}
          aria-label={`${VERDICT_WORDS[verdict]}: ${title}`}
          title={`${VERDICT_WORDS[verdict]}. ${VERDICT_MEANING[verdict]}`}
          onClick={() => give(latest(), page, mine === verdict ? null : verdict)}
          className={`inline-flex h-6 items-center gap-1 rounded px-1.5 ${mine === verdict ? LOOKS[verdict] : 'text-quiet hover:bg-sunken hover:text-ink'}`}
        >
          <VerdictSign verdict={verdict} />
          {mine === verdict && <span className="text-small font-medium">{VERDICT_WORDS[verdict]}</span>}
        </button>
      ))}
    </span>
  ),
};

const LOOKS: Readonly<Record<Verdict, string>> = {
  agreed: 'bg-accent-soft text-accent',
  change: 'bg-attention-soft text-attention',
  unsure: 'bg-sunken text-ink',
};

/** For all that are selected, where the row is one of several. */
function give(
  { chosen, guest }: ReturnType<Parameters<Column['cell']>[1]['latest']>,
  page: Parameters<Column['cell']>[1]['page'],
  verdict: Verdict | null,
): void {
  guest?.give(chosen.length > 1 && chosen.includes(page) ? chosen : [page], verdict);
}

/** How many comments there are on the page, for the guest. */
export const commentsColumn: Column = {
  key: 'comments',
  name: 'Comments',
  width: 84,
  isMinor: true,
  values: ({ guest }, row) => [guest?.comments[row] ?? 0],
  cell: ([count]) => (count === 0 ? null : <span>{count}</span>),
};
