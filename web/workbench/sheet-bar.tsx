import { ArchiveRestore, CornerDownRight, FolderInput, History, Plus, Rocket, Trash2 } from 'lucide-react';
import { branchOf } from '#core/model/site.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { pages } from '../tree/words.ts';
import { KEYS } from './keys.ts';
import { useWorkbench } from './workbench-context.tsx';

/** What can be done in the tree; with several rows selected it says how many and what will happen. */
export function SheetBar() {
  const { chosen, run, mayEdit, mayPublish, setDialog, lens, onlyDiffering, setOnlyDiffering } = useWorkbench();
  return (
    <div className="flex min-h-10 flex-wrap items-center gap-1 border-b border-rule bg-paper px-3 py-1">
      {chosen.length > 1 ? (
        <SelectionActions />
      ) : (
        mayEdit && (
          <>
            <Button
              look="quiet"
              onClick={() => run('addAfter')}
              title={`${KEYS.addAfter.words} (${KEYS.addAfter.keys})`}
              isTight
            >
              <Plus size={16} aria-hidden /> New page
            </Button>
            <Button
              look="quiet"
              onClick={() => run('addInside')}
              title={`${KEYS.addInside.words} (${KEYS.addInside.keys})`}
              isTight
            >
              <CornerDownRight size={16} aria-hidden /> New inside
            </Button>
            <Button
              look="quiet"
              disabled={chosen.length === 0}
              onClick={() => run('moveTo')}
              title={`${KEYS.moveTo.words} (${KEYS.moveTo.keys})`}
              isTight
            >
              <FolderInput size={16} aria-hidden /> Move to…
            </Button>
            <Button
              look="quiet"
              disabled={chosen.length === 0}
              onClick={() => run('remove')}
              title={`${KEYS.remove.words} (${KEYS.remove.keys})`}
              isTight
            >
              <Trash2 size={16} aria-hidden /> Remove
            </Button>
          </>
        )
      )}
      <div className="ml-auto flex items-center gap-1">
        {lens === 'publish' && (
          <label className="mr-2 inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={onlyDiffering}
              onChange={(event) => setOnlyDiffering(event.target.checked)}
            />
            Only what differs
          </label>
        )}
        <IconButton name="Removed pages" onClick={() => setDialog('removed')}>
          <ArchiveRestore size={17} aria-hidden />
        </IconButton>
        <IconButton name="History" onClick={() => setDialog('history')}>
          <History size={17} aria-hidden />
        </IconButton>
        {mayPublish && (
          <Button onClick={() => setDialog('live')}>
            <Rocket size={15} aria-hidden /> Make live…
          </Button>
        )}
      </div>
    </div>
  );
}

function SelectionActions() {
  const { site, store, chosen, run, mayEdit, mayPublish, setDialog } = useWorkbench();
  const all = new Set(chosen.flatMap((id) => branchOf(site, id))).size;
  const set = (fields: { inMenus?: boolean; hidden?: 'no' | 'page' }) =>
    store.apply(chosen.map((page) => ({ name: 'page.set', page, fields })));
  return (
    <>
      <p className="mr-1 font-medium">{chosen.length} selected</p>
      {mayEdit && (
        <>
          <Button look="quiet" isTight title="Put them in menus" onClick={() => set({ inMenus: true })}>
            In menus
          </Button>
          <Button look="quiet" isTight title="Take them off menus" onClick={() => set({ inMenus: false })}>
            Off menus
          </Button>
          <Button look="quiet" isTight onClick={() => set({ hidden: 'page' })}>
            Hide
          </Button>
          <Button look="quiet" isTight onClick={() => set({ hidden: 'no' })}>
            Show
          </Button>
          <Button look="quiet" isTight onClick={() => run('moveTo')}>
            Move {chosen.length} to…
          </Button>
          <Button look="quiet" isTight onClick={() => run('remove')}>
            Remove {pages(all)}
          </Button>
        </>
      )}
      {mayPublish && (
        <Button look="quiet" isTight onClick={() => setDialog('retire')}>
          Take down…
        </Button>
      )}
    </>
  );
}
