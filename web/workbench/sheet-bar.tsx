import { CornerDownRight, Ellipsis, FolderInput, Plus, Trash2, X } from 'lucide-react';
import { FilterButton } from '../find/filter-button.tsx';
import { ColumnsButton } from '../tree/columns-button.tsx';
import { ActionMenu } from '../ui/action-menu.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { ActionButton } from './action-button.tsx';
import type { BarAction } from './bar-action.ts';
import { type CommandName, KEYS } from './keys.ts';
import { useCompact, useNarrow } from './use-compact.ts';
import { useHelpActions, useSheetActions, useViewActions } from './use-workbench-actions.ts';
import { useSelectionActions } from './use-selection-actions.ts';
import { useWorkbench } from './workbench-context.tsx';

/** What can be done in the tree; with several rows selected it says how many and what will happen. */
export function SheetBar() {
  const { chosen, lens, mayEdit } = useWorkbench();
  return (
    <div
      className={`flex min-h-11 flex-wrap items-center gap-x-0.5 border-b border-rule px-3 py-1 compact:min-h-9 compact:px-1.5 compact:py-0.5 ${chosen.length > 1 ? 'bg-accent-soft' : 'bg-paper'}`}
    >
      {chosen.length > 1 ? (
        <SelectionActions key={lens} />
      ) : (
        <>
          {mayEdit && <PageActions />}
          <ViewActions />
        </>
      )}
    </div>
  );
}

/** What is done with pages: making them, and what the selected one can have done with it. */
function usePageActions(): { readonly make: readonly BarAction[]; readonly selected: readonly BarAction[] } {
  const { site, selection, chosen, may, run } = useWorkbench();
  const { active } = selection;
  const isOff = chosen.length === 0 || !chosen.every((page) => may('shape', page));
  const above = active === null ? null : (site.nodes.get(active)?.parent ?? null);
  const of = (command: CommandName, label: string, Sign: BarAction['Sign']): BarAction => ({
    label,
    words: KEYS[command].words,
    keys: KEYS[command].keys,
    Sign,
    run: () => run(command),
  });
  return {
    make: [
      { ...of('addAfter', 'New page', Plus), isOff: !may('shape', above) },
      { ...of('addInside', 'New inside', CornerDownRight), isOff: !may('shape', active) },
    ],
    selected: [
      { ...of('moveTo', 'Move to…', FolderInput), isOff },
      { ...of('remove', 'Remove', Trash2), isOff },
    ],
  };
}

function PageActions() {
  const { beside } = useWorkbench();
  // Settings beside the tree take the room for words. On a telephone a few things have words, and the rest is in a list that has them.
  const isNarrow = useNarrow();
  const isCompact = useCompact() || beside !== null;
  const { make, selected } = usePageActions();
  const shown = isNarrow ? make : [...make, ...selected];
  return shown.map((action) => (
    <ActionButton key={action.label} action={action} isFolded={isCompact && !(isNarrow && action === make[0])} />
  ));
}

function ViewActions() {
  const { view, mayEdit } = useWorkbench();
  const isCompact = useCompact();
  const isNarrow = useNarrow();
  const { selected } = usePageActions();
  const views = useViewActions();
  const { removed, history, sideSheet, live } = useSheetActions();
  const help = useHelpActions();
  const other = views.find(({ isOn }) => !isOn)!;
  return (
    <div className="ml-auto flex flex-wrap items-center gap-0.5">
      <FilterButton />
      {isCompact ? (
        <ActionButton action={{ ...other, isOn: undefined }} />
      ) : (
        <div role="group" aria-label="View" className="mx-1 flex rounded-md border border-edge">
          {views.map((action) => (
            <ActionButton key={action.label} action={action} />
          ))}
        </div>
      )}
      {view !== 'map' && <ColumnsButton />}
      {isCompact ? (
        <More
          actions={[
            ...(isNarrow && mayEdit ? [...selected, null] : []),
            ...views,
            null,
            removed,
            history,
            ...(live ? [live] : []),
            null,
            ...help,
          ]}
        />
      ) : (
        <>
          <ActionButton action={removed} />
          <ActionButton action={history} />
        </>
      )}
      <ActionButton action={isNarrow ? { ...sideSheet, label: 'Page', shows: undefined } : sideSheet} />
      {live && !isCompact && (
        <Button onClick={live.run} className="ml-1">
          <live.Sign size={15} aria-hidden /> {live.label}
        </Button>
      )}
    </div>
  );
}

/** What does not fit on the bar. */
function More({ actions }: { readonly actions: readonly (BarAction | null)[] }) {
  return (
    <ActionMenu
      label="More"
      actions={actions.map((action) => action && { ...action, isChosen: action.isOn })}
      trigger={
        <button
          type="button"
          aria-label="More"
          className="inline-flex size-8 items-center justify-center rounded-md hover:bg-sunken"
        >
          <Ellipsis size={17} aria-hidden />
        </button>
      }
    />
  );
}

function SelectionActions() {
  const { chosen, selection, select } = useWorkbench();
  const isCompact = useCompact();
  const all = useSelectionActions();
  const first = isCompact ? all.filter(({ keys }) => keys !== undefined) : all;
  return (
    <>
      <p role="status" className="mr-2 font-medium text-accent">
        {chosen.length} selected
      </p>
      {first.map((action) => (
        <ActionButton key={action.label} action={action} isFolded={isCompact} />
      ))}
      {first.length < all.length && <More actions={all.filter((action) => !first.includes(action))} />}
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
