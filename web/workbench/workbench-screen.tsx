import {
  useCallback,
  useDeferredValue,
  useEffect,
  useInsertionEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { derivedOf } from '#core/derive/derived.ts';
import { sketchTotals } from '#core/derive/sketch-totals.ts';
import { feedbackTotals } from '#core/derive/feedback-totals.ts';
import { talkTotals } from '#core/derive/talk-totals.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import { mayAt, maySomewhere, powersTable } from '#core/people/powers.ts';
import { useLiveChanges } from '../api/find.ts';
import { useScheduled } from '../api/releases.ts';
import { useSession } from '../api/session.ts';
import { usePlannedTexts } from '../api/sketches.ts';
import { useCountable, useFeedback } from '../api/sharing.ts';
import { useApproval } from '../api/approval.ts';
import { approvalsOf } from './approvals.ts';
import { useOpenThreads } from '../api/talk.ts';
import type { SiteStore } from '../api/site-store.ts';
import { type Clip, keepClip } from '../clipboard/clip.ts';
import { type Pasted, useClipboard } from '../clipboard/use-clipboard.ts';
import { DragLayer } from '../drag/drag-layer.tsx';
import { useFind } from '../find/use-find.ts';
import { NOTHING_SCHEDULED, scheduledPages } from '../tree/scheduled-pages.ts';
import { fetchTheRest } from '../ui/later.tsx';
import { foundAmong, useOpenSetting } from '../settings/use-touched.ts';
import { ALL_LENSES } from '../lenses/all-lenses.ts';
import { useNoteVisit } from '../past/use-last-here.ts';
import { usePast } from '../past/use-past.ts';
import { Dialogs } from './dialogs/dialogs.tsx';
import { TopBar } from './top-bar.tsx';
import { TrailStrip } from './trail-strip.tsx';
import { useCommands } from './use-commands.ts';
import { useCompact } from './use-compact.ts';
import { faultsOf, useFindings, useSettingsFindings } from './use-findings.ts';
import { useConsidered } from './use-preview.ts';
import { useSelection } from './use-selection.ts';
import { useTellHere, useTellRename } from './use-here.ts';
import { useTold } from './use-told.ts';
import { useView } from './use-view.ts';
import { useViewParameters } from './view-parameters.ts';
import { Views } from './views.tsx';
import { TREE_VIEW } from './lenses.ts';
import { type DialogName, type Editing, type Marks, type Workbench, WorkbenchProvider } from './workbench-context.tsx';

/** Whoever holds one of these can change something of the tree. */
const EDITING = ['plan', 'write', 'shape', 'menus', 'access', 'look'] as const satisfies readonly Permission[];
const NOTHING_CUT: ReadonlySet<PageId> = new Set();

/** The workbench of one site: the tree always on the screen, seen through a lens. */
export function WorkbenchScreen({ store }: { readonly store: SiteStore }) {
  const shown = useSyncExternalStore(store.subscribe, store.getShown);
  const [revision, lookAt] = useState<number | null>(null);
  const past = usePast(store.key, shown.site, revision);
  const site = past?.site ?? shown.site;
  const derived = derivedOf(site);
  const { page: asked, rememberPage, ...parameters } = useViewParameters();
  const lensParts = ALL_LENSES[parameters.lens];
  const [view, setView] = useView(parameters.view, parameters.setView, lensParts.views);
  const selected = useSelection(
    site,
    derived,
    asked,
    useCallback(() => past?.site ?? store.getShown().site, [past, store]),
  );
  const { active } = selected.selection;
  const [editing, setEditing] = useState<Editing | null>(null);
  const [preview, setPreview] = useConsidered();
  const [dialog, setDialog] = useState<DialogName | null>(null);
  const [pasted, setPasted] = useState<Pasted | null>(null);
  const [clip, setClip] = useState<Clip | null>(null);
  const [isHistoryOpen, setHistoryOpen] = useState(false);
  const [isSideOver, setSideOver] = useState(false);
  const isCompact = useCompact();
  const { beside, setBeside } = parameters;
  const openHistory = useCallback(
    (isOpen: boolean) => {
      if (isOpen && beside !== null) setBeside(null);
      setHistoryOpen(isOpen);
    },
    [beside, setBeside],
  );
  // What is counted along the tree is counted anew where its shape differs, not for each title.
  const { rowOf, parent, end, isPage } = derived.outline;
  const said = useFeedback(store.key);
  const countable = useCountable(said);
  const feedback = useMemo(
    () => (said && countable ? { said, totals: feedbackTotals({ rowOf, parent, isPage }, countable) } : null),
    [said, countable, rowOf, parent, isPage],
  );
  const here = useSyncExternalStore(store.presence.onHere, store.presence.getHere);
  const agreed = useApproval(store.key);
  const approvals = useMemo(() => (agreed ? approvalsOf(site, agreed) : null), [agreed, site]);
  const threads = useOpenThreads(store.key)?.threads;
  const talk = useMemo(
    () => (threads ? talkTotals({ rowOf, parent }, threads, feedback?.totals ?? null) : null),
    [threads, rowOf, parent, feedback],
  );
  const planned = usePlannedTexts(store.key, shown.revision, site.sketches.length > 0);
  const sketched = useMemo(
    () => (site.sketches.length > 0 ? sketchTotals(site, derived.outline, planned) : null),
    [site, derived.outline, planned],
  );
  const { query, filter, moment } = parameters;
  const totals = feedback?.totals ?? null;
  const isFilteredByFaults = filter.link !== undefined || filter.lacks !== undefined;
  const isChecked = lensParts.asksFor === 'findings' || isFilteredByFaults;
  const findings = useFindings(store.key, site, shown.revision, isChecked);
  const faults = useMemo(
    () => (isFilteredByFaults && findings.ofLinks ? faultsOf(findings) : null),
    [isFilteredByFaults, findings],
  );
  const settingsFindings = useSettingsFindings(store.key, site);
  const openSetting = useOpenSetting(site, derived, parameters.beside, shown.revision, moment);
  const { found: foundByWords, isWaiting } = useFind(
    site,
    derived,
    shown.revision,
    query,
    filter,
    totals,
    faults,
    moment,
  );
  const [sheetMarks, setSheetMarks] = useState<Marks | null>(null);
  const marks = useMemo(() => {
    if (past !== null) return { name: 'Since then', words: past.comparison.earlier };
    if (sheetMarks !== null) return sheetMarks;
    return openSetting?.marks ?? null;
  }, [past, sheetMarks, openSetting]);
  const only = parameters.isOnlyMarked ? marks : null;
  const found = useMemo(
    () => (only === null ? foundByWords : foundAmong(derived, only.words, foundByWords)),
    [derived, only, foundByWords],
  );
  const changes = useLiveChanges(store.key, lensParts.asksFor === 'changes' ? shown.revision : null) ?? null;
  const releases = useScheduled(store.key);
  const scheduled = useMemo(() => (releases ? scheduledPages(releases) : NOTHING_SCHEDULED), [releases]);
  const { powers } = shown;
  const held = useMemo(
    () => powersTable({ rowOf, parent, end }, powers, site.practice),
    [rowOf, parent, end, powers, site.practice],
  );
  const may = useCallback<Workbench['may']>(
    (permission, at) => {
      if (past !== null && permission !== 'read' && permission !== 'answers') return false;
      return at === 'somewhere' ? maySomewhere(powers, permission) : mayAt(site, powers, permission, at);
    },
    [past, powers, site],
  );
  const liveOrigin = useSession()?.liveOrigin ?? '';
  const lastTree = useRef<HTMLElement | null>(null);
  const onTreeFocus = useCallback((tree: HTMLElement) => {
    lastTree.current = tree;
  }, []);
  const focusTree = useCallback(() => {
    const tree = lastTree.current?.isConnected ? lastTree.current : document.querySelector<HTMLElement>(TREE_VIEW);
    tree?.focus({ preventScroll: true });
  }, []);
  // The keys are the tree's from the start.
  useEffect(() => {
    if (document.activeElement === document.body) focusTree();
  }, [focusTree]);
  const paste = useCallback((next: Pasted) => {
    setPasted(next);
    setDialog('paste');
  }, []);
  const forgetClip = useCallback(() => {
    setClip(null);
    keepClip(null);
  }, []);
  const cut = useMemo(
    () => (clip?.kind === 'cut' && clip.site === store.key ? new Set(clip.pages) : NOTHING_CUT),
    [clip, store.key],
  );
  useEffect(() => {
    // The rows are painted when the browser has time again.
    const fetchAll = () =>
      store
        .knowAllLetters()
        .catch(() => undefined)
        .then(fetchTheRest);
    const id = window.setTimeout(() => void fetchAll(), 0);
    return () => window.clearTimeout(id);
  }, [store]);
  useTold(store);
  useNoteVisit(store.key);
  useTellHere(store, active);
  useTellRename(store, editing?.kind === 'rename' ? editing.page : null);
  useEffect(() => {
    if (active !== null) rememberPage(active);
  }, [active, rememberPage]);
  useEffect(() => {
    document.title = `${site.settings.name} – Spur`;
  }, [site.settings.name]);

  const drawn = useRef<Workbench | null>(null);
  const latest = useCallback(() => drawn.current!, []);
  const base: Omit<Workbench, 'run'> = {
    store,
    shown,
    site,
    derived,
    powers,
    held,
    may,
    mayEdit: past === null && EDITING.some((permission) => maySomewhere(powers, permission)),
    mayPublish: may('publish', 'somewhere'),
    maySeeAnswers: may('answers', null),
    liveOrigin,
    ...parameters,
    lensParts,
    openSetting,
    marks,
    setSheetMarks,
    feedback,
    approvals,
    here,
    talk,
    planned,
    sketched,
    findings,
    settingsFindings,
    changes,
    scheduled,
    guest: null,
    ...selected,
    view,
    setView,
    found,
    isFinding: isWaiting,
    editing,
    setEditing,
    preview,
    setPreview,
    dialog,
    setDialog,
    pasted,
    paste,
    cut,
    forgetClip,
    isSideOver,
    setSideOver,
    isHistoryOpen,
    setHistoryOpen: openHistory,
    past,
    lookAt,
    focusTree,
    latest,
  };
  const run = useCommands(base);
  useClipboard(base, setClip, paste);
  const workbench: Workbench = { ...base, run };
  useInsertionEffect(() => {
    drawn.current = workbench;
  });
  // The tree comes first: what stands beside it follows as soon as there is time.
  const later = useDeferredValue(workbench);
  return (
    <WorkbenchProvider value={workbench}>
      <DragLayer>
        <div
          data-compact={isCompact || undefined}
          className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]"
        >
          <TopBar />
          <Views onFocus={onTreeFocus} later={later} />
          <WorkbenchProvider value={later}>
            <TrailStrip />
          </WorkbenchProvider>
        </div>
      </DragLayer>
      <Dialogs />
    </WorkbenchProvider>
  );
}
