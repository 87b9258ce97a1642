import { formatDistanceToNow } from 'date-fns';
import { useMemo } from 'react';
import { Link } from 'react-router';
import useSWR from 'swr';
import { waitingPages } from '#core/changes/release-plan.ts';
import { type Outline, outlineOf } from '#core/derive/outline.ts';
import { openQuestions, planOf } from '#core/model/plan.ts';
import type { Site } from '#core/model/site.ts';
import type { SiteSummary } from '#contract/api.ts';
import { ALL_EDITS, EACH_IS_NEW, fetchSite, useHistory } from '../api/sites.ts';
import { historyLines } from '../past/history-lines.ts';
import { pages } from '../tree/words.ts';

/** Of larger sites the list says what it knows without their tree. */
const MOST_PAGES = 2000;
const LATEST = 3;

/** What waits in a site, who changed what last, and how its tree looks, where it is small enough to be looked at in passing. */
export function SiteAtAGlance({ site }: { readonly site: SiteSummary }) {
  const isSmall = site.pages > 0 && site.pages <= MOST_PAGES;
  const { data: tree } = useSWR(
    isSmall ? [`/sites/${site.key}/glance`, site.changedAt] : null,
    () => fetchSite(site.key),
    EACH_IS_NEW,
  );
  const entries = useHistory(site.key, Date.parse(site.changedAt), ALL_EDITS) ?? [];
  const waits = useMemo(() => (tree ? waitsIn(tree) : []), [tree]);
  return (
    <div className="col-span-full grid gap-x-6 gap-y-2 md:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)_10rem]">
      <ul aria-label={`What waits in ${site.name}`} className="flex flex-col gap-0.5 text-small">
        {waits.map(({ words, to }) => (
          <li key={words}>
            <Link to={`/sites/${site.key}${to}`} className="inline-block py-0.5 text-attention hover:underline">
              {words}
            </Link>
          </li>
        ))}
        {tree && waits.length === 0 && <li className="text-quiet">Nothing waits.</li>}
      </ul>
      <ul aria-label={`Latest changes of ${site.name}`} className="flex flex-col gap-0.5 text-small">
        {historyLines(entries)
          .slice(0, LATEST)
          .map(({ revision, at, by, words }) => (
            <li key={revision} className="truncate" title={`${by} ${words}`}>
              <span className="font-medium">{by}</span> {words}{' '}
              <span className="text-quiet">{formatDistanceToNow(new Date(at), { addSuffix: true })}</span>
            </li>
          ))}
      </ul>
      {tree && <SmallMap outline={outlineOf(tree)} name={site.name} />}
    </div>
  );
}

interface Waits {
  readonly words: string;
  readonly to: string;
}

/** What somebody has to see to, each with where in the workbench that is. */
function waitsIn(site: Site): readonly Waits[] {
  const { nodes } = outlineOf(site);
  const waiting = waitingPages(site).length;
  const today = new Date().toISOString().slice(0, 10);
  let late = 0;
  let questions = 0;
  for (const node of nodes) {
    const plan = planOf(node);
    questions += openQuestions(plan);
    if (node.type === 'page' && plan.readiness !== 'ready' && plan.due !== null && plan.due < today) late += 1;
  }
  const all: readonly (readonly [count: number, words: string, to: string])[] = [
    [
      waiting,
      `${pages(waiting)} ${waiting === 1 ? 'differs' : 'differ'} from what is live`,
      '?lens=publish&live=differs',
    ],
    [late, `${pages(late)} overdue`, '?lens=plan&view=schedule'],
    [questions, questions === 1 ? '1 question is open' : `${questions} questions are open`, '?lens=plan'],
  ];
  return all.filter(([count]) => count > 0).map(([, words, to]) => ({ words, to }));
}

const WIDTH = 160;
const HEIGHT = 56;
const TOP = 6;
const MOST_BRANCHES = 24;
const MOST_BELOW = 10;

/** The top of the tree as a comb: a tooth for each branch, as long as it has pages right below. */
function SmallMap({ outline, name }: { readonly outline: Outline; readonly name: string }) {
  const { nodes, end, parent } = outline;
  const branches: number[] = [];
  for (let row = 0; row < nodes.length; row = end[row]!)
    branches.push(parent.subarray(row + 1, end[row]).filter((above) => above === row).length);
  const shown = branches.slice(0, MOST_BRANCHES);
  const step = WIDTH / Math.max(shown.length, 8);
  const xOf = (at: number) => step / 2 + at * step;
  const yOf = (below: number) => TOP + (Math.min(below, MOST_BELOW) * (HEIGHT - TOP - 4)) / MOST_BELOW;
  return (
    <svg
      role="img"
      aria-label={`The tree of ${name}: ${branches.length === 1 ? '1 branch' : `${branches.length} branches`}`}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-14 w-40 max-md:hidden"
    >
      <path
        d={`M${xOf(0)} ${TOP}H${xOf(shown.length - 1)}${shown.map((below, at) => `M${xOf(at)} ${TOP}V${yOf(below)}`).join('')}`}
        className="fill-none stroke-ink"
        strokeWidth={1.5}
      />
      {shown.flatMap((below, at) =>
        Array.from({ length: Math.min(below, MOST_BELOW) + 1 }, (_, index) => (
          <circle
            key={`${at} ${index}`}
            cx={xOf(at)}
            cy={yOf(index)}
            r={index === 0 ? 2.6 : 1.8}
            className={index === 0 ? 'fill-raised stroke-accent' : 'fill-accent'}
            strokeWidth={1.5}
          />
        )),
      )}
    </svg>
  );
}
