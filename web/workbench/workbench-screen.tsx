import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { derivedOf } from '#core/derive/derived.ts';
import { type PageId, pageIdSchema } from '#core/model/ids.ts';
import { ancestorsOf, childrenOf, maybeNodeAt } from '#core/model/site.ts';
import { useMay, useSession } from '../api/session.ts';
import type { Edit, SiteStore } from '../api/site-store.ts';
import { LensPanel } from '../lenses/lens-panel.tsx';
import { TreeSheet } from '../tree/tree-sheet.tsx';
import { useCommands } from './use-commands.ts';
import { Dialogs } from './dialogs/dialogs.tsx';
import { SheetBar } from './sheet-bar.tsx';
import { TopBar } from './top-bar.tsx';
import { TrailStrip } from './trail-strip.tsx';
import {
  type DialogName,
  type Editing,
  LENSES,
  type Lens,
  type Selection,
  type Workbench,
  WorkbenchProvider,
} from './workbench-context.tsx';

/** The workbench of one site: the tree always on the screen, seen through a lens. */
export function WorkbenchScreen({ store }: { readonly store: SiteStore }) {
  const shown = useSyncExternalStore(store.subscribe, store.getShown);
  const { site } = shown;
  const derived = derivedOf(site);
  const [parameters, setParameters] = useSearchParams();
  const lens = LENSES.find((one) => one === parameters.get('lens')) ?? 'write';
  const [selection, setSelection] = useState<Selection>(() => firstSelection(store, parameters.get('page')));
  const [open, setOpenNodes] = useState<ReadonlySet<PageId>>(() => firstOpen(store, selection.active));
  const [query, setQuery] = useState('');
  const [onlyDiffering, setOnlyDiffering] = useState(false);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [preview, setPreview] = useState<readonly Edit[] | null>(null);
  const [dialog, setDialog] = useState<DialogName | null>(null);
  const mayEdit = useMay('site.edit');
  const mayPublish = useMay('site.publish');
  const liveOrigin = useSession()?.liveOrigin ?? '';
  const treeRef = useRef<HTMLDivElement>(null);

  const remember = useCallback(
    (name: string, value: string) =>
      setParameters(
        (before) => {
          const next = new URLSearchParams(before);
          next.set(name, value);
          return next;
        },
        { replace: true },
      ),
    [setParameters],
  );
  const setLens = useCallback((next: Lens) => remember('lens', next), [remember]);
  const setOpen = useCallback((page: PageId, isOpen: boolean) => {
    setOpenNodes((before) => {
      const next = new Set(before);
      if (isOpen) next.add(page);
      else next.delete(page);
      return next;
    });
  }, []);
  // What is selected shows: the branches above it are open.
  const select = useCallback(
    (next: Selection) => {
      setSelection(next);
      const { site: now } = store.getShown();
      const above = next.active === null ? [] : ancestorsOf(now, next.active).map((node) => node.id);
      setOpenNodes((before) => (above.every((id) => before.has(id)) ? before : new Set([...before, ...above])));
    },
    [store],
  );
  const focusTree = useCallback(() => treeRef.current?.focus({ preventScroll: true }), []);

  // A node that somebody else removed is not selected any more; the row that takes its place is.
  const active = selection.active !== null && maybeNodeAt(site, selection.active) ? selection.active : null;
  const chosen = useMemo(
    () =>
      [...selection.chosen]
        .filter((id) => derived.outline.rowOf.has(id))
        .sort((a, b) => derived.outline.rowOf.get(a)! - derived.outline.rowOf.get(b)!),
    [selection.chosen, derived],
  );

  useEffect(() => {
    if (active !== null) remember('page', active);
  }, [active, remember]);
  useEffect(() => {
    document.title = `${site.settings.name} – Spur`;
  }, [site.settings.name]);
  useEffect(
    () =>
      store.onTold((told) => {
        if (told.kind === 'fault') toast.error(told.words);
        else toast(`${told.by} ${told.words}`, { duration: 3500 });
      }),
    [store],
  );

  const current: Selection = { ...selection, active };
  const base: Omit<Workbench, 'run'> = {
    store,
    shown,
    site,
    derived,
    mayEdit,
    mayPublish,
    liveOrigin,
    lens,
    setLens,
    selection: current,
    select,
    open,
    setOpen,
    query,
    setQuery,
    onlyDiffering: onlyDiffering && lens === 'publish',
    setOnlyDiffering,
    editing,
    setEditing,
    preview,
    setPreview,
    dialog,
    setDialog,
    chosen,
    focusTree,
  };
  const run = useCommands(base);
  return (
    <WorkbenchProvider value={{ ...base, run }}>
      <div className="grid h-full grid-rows-[auto_minmax(0,1fr)_auto]">
        <TopBar />
        <main className="relative grid min-h-0 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_22rem] lg:grid-cols-[minmax(0,1fr)_24rem]">
          <h1 className="sr-only">The page tree of {site.settings.name}</h1>
          <section aria-label="Page tree" className="flex min-h-0 min-w-0 flex-col max-md:h-[58vh]">
            <SheetBar />
            <TreeSheet ref={treeRef} />
          </section>
          <LensPanel />
        </main>
        <TrailStrip />
      </div>
      <Dialogs />
    </WorkbenchProvider>
  );
}

function firstSelection(store: SiteStore, asked: string | null): Selection {
  const { site } = store.getShown();
  const parsed = pageIdSchema.safeParse(asked);
  const active = parsed.success && maybeNodeAt(site, parsed.data) ? parsed.data : (childrenOf(site, null)[0] ?? null);
  return { active, chosen: new Set(active === null ? [] : [active]), anchor: active };
}

/** At first the top level is open where the site is small enough to be seen whole; and what stands above the selected page. */
function firstOpen(store: SiteStore, active: PageId | null): ReadonlySet<PageId> {
  const { site } = store.getShown();
  const open = new Set<PageId>();
  if (site.nodes.size <= 400) for (const id of childrenOf(site, null)) open.add(id);
  if (active !== null) for (const node of ancestorsOf(site, active)) open.add(node.id);
  return open;
}
