import {
  ArrowDownUp,
  ArrowRightLeft,
  CalendarRange,
  Globe,
  LayoutTemplate,
  ListTree,
  MessagesSquare,
  Pin,
  Target,
} from 'lucide-react';
import { planTotalsOf } from '#core/derive/plan-totals.ts';
import { READINESS } from '#core/model/plan.ts';
import { EXPORTS } from '#contract/exports.ts';
import { dayWords, todayHere } from '../../tree/plan-words.tsx';
import { ReadinessBar } from '../../tree/readiness-bar.tsx';
import { isTreeView } from '../../workbench/lenses.ts';
import { useArrangement } from '../../workbench/use-view.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';

const PARTS = [
  { part: null, label: 'Tree', words: 'The tree of the plan', Sign: ListTree, also: ['rows'] },
  {
    part: 'schedule',
    label: 'Schedule',
    words: 'Schedule: who writes what by when',
    Sign: CalendarRange,
    also: ['deadlines', 'due', 'owners', 'workload'],
  },
  {
    part: 'carry-over',
    label: 'Carry-over',
    words: 'Carry-over: old pages to new ones',
    Sign: ArrowRightLeft,
    also: ['migration', 'old site', 'inventory', 'redirect'],
  },
] as const;

const EXPORTED = ['site.csv', 'site.opml', 'site.md', 'sitemap.xml', 'site.json'] as const;
/** Each with what it is of, since its own words are those of a menu that stands there. */
const EXPORTED_ELSEWHERE = {
  'redirects.csv': 'Redirects',
  'redirects.nginx': 'Redirects',
  'redirects.apache': 'Redirects',
  'schedule.csv': 'Schedule',
  'schedule.ics': 'Schedule',
} as const;
const IMPORT_AND_EXPORT = 'Import and export';

/** What the whole plan comes to. */
export function PlanSays() {
  const { derived } = useWorkbench();
  const { outline } = derived;
  const totals = planTotalsOf(outline);
  const counts = READINESS.map(() => 0);
  let due: string | null = null;
  let pages = 0;
  for (let row = 0; row < outline.nodes.length; row = outline.end[row]!) {
    pages += totals.pages[row]!;
    counts.forEach((count, at) => (counts[at] = count + totals.readiness[row * READINESS.length + at]!));
    const first = totals.due[row]!;
    if (first !== null && (due === null || first < due)) due = first;
  }
  return (
    <>
      <p className="flex items-center gap-2">
        <ReadinessBar counts={counts} width={64} />
        <span>
          {counts[READINESS.length - 1]} of {pages} ready
        </span>
      </p>
      {due !== null && (
        <p className={due < todayHere() ? 'font-medium text-attention' : 'text-quiet'}>
          {due < todayHere() ? `Late since ${dayWords(due)}` : `First due ${dayWords(due)}`}
        </p>
      )}
    </>
  );
}

/** The other parts of the plan, what the site is for, and what comes in and goes out. */
export function usePlanActions(): readonly BarAction[] {
  const { site, mayEdit, view, lens, setLens, setView, setDialog, setBeside } = useWorkbench();
  const [{ view: tree }] = useArrangement();
  const inOut = { label: IMPORT_AND_EXPORT, group: IMPORT_AND_EXPORT, Sign: ArrowDownUp };
  const fetch = (path: string) => () => window.location.assign(`/api/sites/${site.key}/${path}`);
  return [
    ...PARTS.map(({ part, ...of }) => ({
      ...of,
      isOn: part === null ? isTreeView(view) : view === part,
      run: () => {
        if (lens !== 'plan') setLens('plan');
        setView(part ?? tree);
      },
    })),
    {
      label: 'Goals',
      count: site.goals.length,
      words: 'Goals of the site…',
      also: ['purpose', 'objectives'],
      Sign: Target,
      run: () => setBeside({ kind: 'goals', id: null }),
    },
    {
      label: 'Sketches',
      count: site.sketches.length,
      words: 'Sketches of pages…',
      also: ['wireframe', 'boxes', 'variants', 'layout', 'content'],
      Sign: LayoutTemplate,
      run: () => setBeside({ kind: 'sketches', id: null }),
    },
    {
      label: 'Boards',
      count: site.boards.length,
      words: 'Boards for the look…',
      also: ['mood', 'colours', 'pictures', 'inspiration', 'type'],
      Sign: Pin,
      run: () => setBeside({ kind: 'boards', id: null }),
    },
    ...(mayEdit
      ? [
          {
            label: 'Share',
            words: 'Share the plan for comment…',
            also: ['guests', 'feedback', 'review', 'link'],
            Sign: MessagesSquare,
            run: () => setBeside({ kind: 'sharing', id: null }),
          },
          {
            ...inOut,
            words: 'Begin from a starter…',
            also: ['template', 'example'],
            run: () => setDialog('starters'),
          },
          {
            ...inOut,
            words: 'Import pages…',
            also: ['CSV', 'upload', 'spreadsheet', 'OPML'],
            run: () => setDialog('import'),
          },
          {
            ...inOut,
            words: 'Import the old site…',
            also: ['crawl', 'inventory', 'sitemap'],
            Sign: Globe,
            run: () => setBeside({ kind: 'old-site', id: null }),
          },
        ]
      : []),
    {
      ...inOut,
      words: 'The plan as PDF: the map and the sketches…',
      also: ['export', 'print', 'paper', 'wireframes'],
      run: () => setBeside({ kind: 'plan-pdf', id: null }),
    },
    ...EXPORTED.map((name) => ({
      ...inOut,
      words: EXPORTS[name].words,
      also: ['export', 'download', name],
      run: fetch(`exports/${name}`),
    })),
    ...Object.entries(EXPORTED_ELSEWHERE).map(([name, of]) => ({
      ...inOut,
      words: `${of}: ${EXPORTS[name as keyof typeof EXPORTED_ELSEWHERE].words}`,
      also: ['export', 'download', name],
      isListedOnly: true,
      run: fetch(`exports/${name}`),
    })),
    ...(mayEdit
      ? [
          {
            ...inOut,
            words: 'The whole site with its history and files (ZIP)',
            also: ['export', 'archive', 'backup', 'download'],
            run: fetch('archive?files=yes'),
          },
          {
            ...inOut,
            words: 'The whole site with its history, without files (JSON)',
            also: ['export', 'archive', 'backup', 'download'],
            run: fetch('archive'),
          },
        ]
      : []),
  ];
}
