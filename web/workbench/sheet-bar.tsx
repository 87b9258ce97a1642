import {
  ArchiveRestore,
  Columns2,
  Copy,
  CornerDownRight,
  Eye,
  EyeOff,
  FolderInput,
  History,
  Network,
  PanelRight,
  Plus,
  Rocket,
  Rows3,
  Scissors,
  SlidersHorizontal,
  Trash2,
  X,
} from 'lucide-react';
import { topmost } from '#core/arrange/arrange.ts';
import { branchOf } from '#core/model/site.ts';
import { FilterButton } from '../find/filter-button.tsx';
import { ColumnsButton } from '../tree/columns-button.tsx';
import { pages, withBelow } from '../tree/words.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { type CommandName, KEYS } from './keys.ts';
import { type View, isTreeView } from './lenses.ts';
import { useArrangement } from './use-view.ts';
import { useWorkbench } from './workbench-context.tsx';

/** What can be done in the tree; with several rows selected it says how many and what will happen. */
export function SheetBar() {
  const { chosen, mayEdit } = useWorkbench();
  return (
    <div
      className={`flex min-h-11 flex-wrap items-center gap-x-0.5 border-b border-rule px-3 py-1 ${chosen.length > 1 ? 'bg-accent-soft' : 'bg-paper'}`}
    >
      {chosen.length > 1 ? (
        <SelectionActions />
      ) : (
        <>
          {mayEdit && <PageActions />}
          <ViewActions />
        </>
      )}
    </div>
  );
}

const titleOf = (command: CommandName): string => `${KEYS[command].words} (${KEYS[command].keys})`;

function PageActions() {
  const { chosen, run } = useWorkbench();
  return (
    <>
      <Button look="quiet" isTight onClick={() => run('addAfter')} title={titleOf('addAfter')}>
        <Plus size={16} aria-hidden /> <span className="max-md:sr-only">New page</span>
      </Button>
      <Button look="quiet" isTight onClick={() => run('addInside')} title={titleOf('addInside')}>
        <CornerDownRight size={16} aria-hidden /> <span className="max-md:sr-only">New inside</span>
      </Button>
      <Button
        look="quiet"
        isTight
        disabled={chosen.length === 0}
        onClick={() => run('moveTo')}
        title={titleOf('moveTo')}
        className="max-md:hidden"
      >
        <FolderInput size={16} aria-hidden /> Move to…
      </Button>
      <Button
        look="quiet"
        isTight
        disabled={chosen.length === 0}
        onClick={() => run('remove')}
        title={titleOf('remove')}
      >
        <Trash2 size={16} aria-hidden /> <span className="max-md:sr-only">Remove</span>
      </Button>
    </>
  );
}

const VIEW_BUTTONS: readonly { readonly view: View; readonly name: string; readonly Sign: typeof Rows3 }[] = [
  { view: 'sheet', name: 'As rows', Sign: Rows3 },
  { view: 'map', name: 'As a map', Sign: Network },
  { view: 'split', name: 'Rows and map beside each other', Sign: Columns2 },
];

function ViewActions() {
  const { view, setView, setDialog, mayPublish, isHistoryOpen, setHistoryOpen } = useWorkbench();
  const [arrangement, keep] = useArrangement();
  const { withoutSide } = arrangement;
  const tree = isTreeView(view) ? view : 'sheet';
  const hasSide = !withoutSide.includes(tree);
  return (
    <div className="ml-auto flex flex-wrap items-center gap-0.5">
      <FilterButton />
      <div role="group" aria-label="View" className="mx-1 flex rounded-md border border-edge">
        {VIEW_BUTTONS.map(({ view: one, name, Sign }) => (
          <IconButton
            key={one}
            name={name}
            aria-pressed={view === one}
            onClick={() => setView(one)}
            className={`${view === one ? 'bg-accent-soft text-accent' : ''} ${one === 'split' ? 'max-md:hidden' : ''}`}
          >
            <Sign size={16} aria-hidden />
          </IconButton>
        ))}
      </div>
      {view !== 'map' && <ColumnsButton />}
      <IconButton name="Removed pages" onClick={() => setDialog('removed')}>
        <ArchiveRestore size={17} aria-hidden />
      </IconButton>
      <IconButton
        name="History"
        keys={KEYS.history.keys}
        aria-pressed={isHistoryOpen}
        onClick={() => setHistoryOpen(!isHistoryOpen)}
        className={isHistoryOpen ? 'bg-accent-soft text-accent' : ''}
      >
        <History size={17} aria-hidden />
      </IconButton>
      <IconButton
        name={hasSide ? 'Close the side sheet' : 'Open the side sheet'}
        aria-expanded={hasSide}
        onClick={() =>
          keep({
            ...arrangement,
            withoutSide: hasSide ? [...withoutSide, tree] : withoutSide.filter((one) => one !== tree),
          })
        }
      >
        <PanelRight size={17} aria-hidden />
      </IconButton>
      {mayPublish && (
        <Button onClick={() => setDialog('live')} className="ml-1">
          <Rocket size={15} aria-hidden /> <span className="max-md:sr-only">Make live…</span>
        </Button>
      )}
    </div>
  );
}

function SelectionActions() {
  const { site, store, chosen, selection, select, run, lensParts, mayEdit, mayPublish, setDialog } = useWorkbench();
  const { SelectionActions } = lensParts;
  const tops = topmost(site, chosen);
  const below = tops.reduce((count, id) => count + branchOf(site, id).length - 1, 0);
  const set = (fields: { inMenus?: boolean; hidden?: 'no' | 'page' }) =>
    store.apply(chosen.map((page) => ({ name: 'page.set', page, fields })));
  return (
    <>
      <p role="status" className="mr-2 font-medium text-accent">
        {chosen.length} selected
      </p>
      {mayEdit && (
        <>
          <Button look="quiet" isTight title="Put them in menus" onClick={() => set({ inMenus: true })}>
            In menus
          </Button>
          <Button look="quiet" isTight title="Take them off menus" onClick={() => set({ inMenus: false })}>
            Off menus
          </Button>
          <IconButton name={`Hide ${pages(chosen.length)}`} onClick={() => set({ hidden: 'page' })}>
            <EyeOff size={16} aria-hidden />
          </IconButton>
          <IconButton name={`Show ${pages(chosen.length)} again`} onClick={() => set({ hidden: 'no' })}>
            <Eye size={16} aria-hidden />
          </IconButton>
          <IconButton name="Set fields…" onClick={() => setDialog('setFields')}>
            <SlidersHorizontal size={16} aria-hidden />
          </IconButton>
        </>
      )}
      <IconButton name={`Copy ${pages(chosen.length)}`} keys={KEYS.copy.keys} onClick={() => run('copy')}>
        <Copy size={16} aria-hidden />
      </IconButton>
      {mayEdit && (
        <>
          <IconButton name={`Cut ${pages(chosen.length)}`} keys={KEYS.cut.keys} onClick={() => run('cut')}>
            <Scissors size={16} aria-hidden />
          </IconButton>
          <Button look="quiet" isTight onClick={() => run('moveTo')} title={titleOf('moveTo')}>
            Move {tops.length} to…
          </Button>
          <Button look="quiet" isTight onClick={() => run('remove')} title={titleOf('remove')}>
            Remove {withBelow(tops.length, below)}
          </Button>
        </>
      )}
      {SelectionActions && <SelectionActions />}
      {mayPublish && (
        <IconButton name="Make live…" onClick={() => setDialog('live')}>
          <Rocket size={16} aria-hidden />
        </IconButton>
      )}
      <IconButton
        name="Select one page only"
        onClick={() => select({ ...selection, chosen: new Set(selection.active === null ? [] : [selection.active]) })}
        className="ml-auto"
      >
        <X size={16} aria-hidden />
      </IconButton>
    </>
  );
}
