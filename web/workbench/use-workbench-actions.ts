import {
  BellDot,
  ArchiveRestore,
  CircleHelp,
  Columns2,
  Columns3,
  History,
  LayoutGrid,
  ListFilter,
  Network,
  PanelRight,
  PenLine,
  Rocket,
  Rows3,
  SlidersHorizontal,
  SquareTerminal,
  UserCheck,
} from 'lucide-react';
import { useNavigate } from 'react-router';
import type { BarAction } from './bar-action.ts';
import { KEYS } from './keys.ts';
import { isTreeView } from './lenses.ts';
import { useSideSheet } from './use-side-sheet.ts';
import { useWorkbench } from './workbench-context.tsx';

const VIEWS = [
  { view: 'sheet', label: 'As rows', also: ['table', 'list', 'outline'], Sign: Rows3 },
  { view: 'map', label: 'As a map', also: ['diagram', 'chart', 'tree'], Sign: Network },
  { view: 'split', label: 'Rows and map beside each other', also: ['split', 'both'], Sign: Columns2 },
] as const;

/** The ways to see the tree. */
export function useViewActions(): readonly BarAction[] {
  const { view, setView } = useWorkbench();
  return VIEWS.map(({ view: one, label, also, Sign }) => ({
    label,
    words: label,
    also,
    Sign,
    shows: 'sign',
    isOn: view === one,
    run: () => setView(one),
  }));
}

/** The button that opens the columns, and the one that opens the filter: the list of commands presses them. */
export const COLUMNS_BUTTON = 'columns-button';
export const FILTER_BUTTON = 'filter-button';
/** The list of commands gives the keyboard back when it closes; what is to have it instead takes it after that. */
export const afterwards = (work: () => void): void => void window.setTimeout(work, 60);
const press = (id: string) => () => afterwards(() => document.getElementById(id)?.click());

/** What opens beside the tree or over it. */
export function useSheetActions() {
  const { setBeside, isHistoryOpen, setHistoryOpen } = useWorkbench();
  const side = useSideSheet();
  const sideWords = side.isOpen ? 'Close the side sheet' : 'Open the side sheet';
  const removed: BarAction = {
    label: 'Removed pages',
    words: 'Removed pages',
    also: ['put back', 'bin', 'trash', 'deleted', 'restore'],
    Sign: ArchiveRestore,
    shows: 'sign',
    run: () => setBeside({ kind: 'removed', id: null }),
  };
  const history: BarAction = {
    label: 'History',
    words: 'History',
    also: ['log', 'versions', 'who changed', 'earlier'],
    keys: KEYS.history.keys,
    Sign: History,
    shows: 'sign',
    isOn: isHistoryOpen,
    run: () => setHistoryOpen(!isHistoryOpen),
  };
  const since: BarAction = {
    label: 'Since you were last here',
    words: 'Since you were last here: what others have changed…',
    also: ['news', 'changes', 'new', 'what happened'],
    Sign: BellDot,
    shows: 'sign',
    run: () => setBeside({ kind: 'since', id: null }),
  };
  const sideSheet: BarAction = {
    label: sideWords,
    words: sideWords,
    also: ['details', 'panel', 'settings of the page', 'text'],
    Sign: PanelRight,
    shows: 'sign',
    run: () => side.setOpen(!side.isOpen),
  };
  const live = useGoingLive();
  return { removed, history, since, sideSheet, live };
}

/** The list of keys, and the list of all commands. */
export function useHelpActions(): readonly BarAction[] {
  const { run } = useWorkbench();
  return [
    {
      label: 'Keys',
      words: 'Keys…',
      also: ['shortcuts', 'keyboard', 'help'],
      keys: KEYS.help.keys,
      Sign: CircleHelp,
      run: () => run('help'),
    },
    {
      label: 'Commands',
      words: 'Commands…',
      keys: KEYS.commands.keys,
      Sign: SquareTerminal,
      run: () => run('commands'),
    },
  ];
}

/** What the list of commands has from the rest of the screen. */
export function useOtherActions(): readonly BarAction[] {
  const { view, may, mayEdit, mayPublish, chosen, setDialog, setBeside } = useWorkbench();
  const navigate = useNavigate();
  return [
    ...(isTreeView(view)
      ? [
          {
            label: 'Filter',
            words: 'Filter: choose which pages show…',
            also: ['search', 'only', 'saved filters'],
            Sign: ListFilter,
            run: press(FILTER_BUTTON),
          },
        ]
      : []),
    ...(view === 'sheet' || view === 'split'
      ? [
          {
            label: 'Columns',
            words: 'Columns: choose and order them…',
            also: ['fields', 'table', 'hide columns'],
            Sign: Columns3,
            run: press(COLUMNS_BUTTON),
          },
        ]
      : []),
    ...(mayPublish && chosen.length > 0
      ? [
          {
            label: 'Take down…',
            words: 'Take down the selected pages…',
            also: ['unpublish', 'retire', 'offline'],
            Sign: Rocket,
            run: () => setBeside({ kind: 'taking-down', id: null }),
          },
          {
            label: 'Texts',
            words: 'Compare draft and live texts…',
            also: ['differences', 'diff'],
            Sign: PenLine,
            run: () => setBeside({ kind: 'texts', id: null }),
          },
        ]
      : []),
    ...(mayEdit && chosen.length === 1
      ? [
          {
            label: 'Set fields…',
            words: 'Set fields of the selected page…',
            also: ['bulk', 'properties'],
            Sign: SlidersHorizontal,
            run: () => setBeside({ kind: 'fields', id: null }),
          },
        ]
      : []),
    ...(may('everything', null)
      ? [
          {
            label: 'Rename this site…',
            words: 'Rename this site…',
            also: ['site name', 'title of the site'],
            Sign: PenLine,
            run: () => setDialog('renameSite'),
          },
        ]
      : []),
    {
      label: 'All sites',
      words: 'All sites',
      also: ['another site', 'switch', 'new site', 'delete a site'],
      Sign: LayoutGrid,
      run: () => void navigate('/sites'),
    },
  ];
}

/** Making pages live, for whoever may; proposing them for whoever writes where that needs approval; null for others. */
export function useGoingLive(): BarAction | null {
  const { mayPublish, may, approvals, setBeside } = useWorkbench();
  if (mayPublish)
    return {
      label: 'Make live…',
      words: 'Make live…',
      also: ['publish', 'release', 'schedule', 'go live'],
      Sign: Rocket,
      run: () => setBeside({ kind: 'going-live', id: null }),
    };
  if (approvals === null || approvals.answer.rules.length === 0 || !may('write', 'somewhere')) return null;
  return {
    label: 'Propose…',
    words: 'Propose pages for approval…',
    also: ['publish', 'release', 'review', 'go live'],
    Sign: UserCheck,
    run: () => setBeside({ kind: 'proposing', id: null }),
  };
}
