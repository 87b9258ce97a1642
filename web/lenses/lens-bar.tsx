import type { BarAction } from '../workbench/bar-action.ts';
import { ActionButton } from '../workbench/action-button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { ActionMenu } from '../ui/action-menu.tsx';
import { Button } from '../ui/button.tsx';
import type { LensDefinition } from './lens-definition.ts';

/** What the lens says of the whole site, and what can be done for it; it stands above the tree. */
export function LensBar() {
  const { lensParts } = useWorkbench();
  const { Says, useActions } = lensParts;
  return (Says ?? useActions) && <Bar key={lensParts.name} lens={lensParts} />;
}

function Bar({ lens: { name, Says, useActions = noActions } }: { readonly lens: LensDefinition }) {
  const { beside } = useWorkbench();
  const actions = useActions().filter(({ isListedOnly }) => !isListedOnly);
  if (actions.length === 0 && !Says) return null;
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-2 gap-y-1 border-b border-rule bg-paper px-2 py-1 pl-4 text-small">
      {/* What stands beside the tree takes its room. */}
      {Says && beside === null && <Says />}
      <div
        role="toolbar"
        aria-label={`The ${name} lens`}
        className="ml-auto flex flex-wrap items-center justify-end gap-0.5"
      >
        {piecesOf(actions).map((piece) =>
          'actions' in piece ? (
            <ActionMenu
              key={piece.group}
              label={piece.group}
              actions={piece.actions}
              trigger={
                <Button look="quiet" isTight>
                  <piece.Sign size={15} aria-hidden /> {piece.group}
                </Button>
              }
            />
          ) : (
            <ActionButton key={piece.words} action={piece} />
          ),
        )}
      </div>
    </div>
  );
}

interface Group {
  readonly group: string;
  readonly Sign: BarAction['Sign'];
  readonly actions: readonly BarAction[];
}

/** What the bar is made of: actions, and menus of those that belong together. */
const piecesOf = (actions: readonly BarAction[]): readonly (BarAction | Group)[] =>
  [...Map.groupBy(actions, (action) => action.group)].flatMap<BarAction | Group>(([group, of]) =>
    group === undefined ? of : [{ group, Sign: of[0]!.Sign, actions: of }],
  );

const noActions = (): readonly BarAction[] => [];

/** What a lens says and offers, one below the other: for the menu in which the lens is chosen on small screens. */
export function FoldedLens({ lens, onDone }: { readonly lens: LensDefinition; readonly onDone: () => void }) {
  const { Says, Below, useActions = noActions } = lens;
  const actions = useActions().filter(({ isListedOnly }) => !isListedOnly);
  return (
    <div data-folded className="flex flex-col">
      {Says && (
        <div className="flex flex-col gap-1 px-2 py-1 text-small">
          <Says />
        </div>
      )}
      {actions.map(({ label, group, words, count = 0, attention, Sign, isOn, isOff, run }) => (
        <button
          key={words}
          type="button"
          aria-pressed={isOn}
          disabled={isOff}
          onClick={() => {
            onDone();
            run();
          }}
          className={`flex min-h-8 items-center gap-2.5 rounded px-2 text-left disabled:opacity-45 ${isOn ? 'bg-accent-soft font-medium text-accent' : 'hover:bg-accent-soft'}`}
        >
          <Sign size={16} aria-hidden className="shrink-0" />
          <span>
            {group === undefined ? label : words}
            {count > 0 && ` (${count})`}
            {attention !== undefined && <span className="text-attention"> ({attention})</span>}
          </span>
        </button>
      ))}
      {Below && <Below />}
    </div>
  );
}
