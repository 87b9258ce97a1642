import { Command } from 'cmdk';
import { type ReactNode, useState } from 'react';
import { folded } from '#core/derive/folded.ts';
import { isNearText } from '#core/derive/near-words.ts';
import { typedWords } from '#core/derive/visible-rows.ts';
import { ALL_LENSES } from '../../lenses/all-lenses.ts';
import type { LensDefinition } from '../../lenses/lens-definition.ts';
import type { BarAction } from '../bar-action.ts';
import { SETTINGS } from '../../settings/all-settings.ts';
import { SETTINGS_KEYS, type SettingsKey } from '../../settings/settings-keys.ts';
import { type CommandName, KEYS } from '../keys.ts';
import { LENSES } from '../lenses.ts';
import {
  afterwards,
  useHelpActions,
  useOtherActions,
  useSheetActions,
  useViewActions,
} from '../use-workbench-actions.ts';
import { useSelectionActions } from '../use-selection-actions.ts';
import { useWorkbench } from '../workbench-context.tsx';

const ITEM = 'flex min-h-9 cursor-pointer items-center gap-4 rounded px-3 py-1 data-[selected=true]:bg-accent-soft';
const GROUP =
  '[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-small [&_[cmdk-group-heading]]:text-quiet';

/** Other words under which somebody may look for a command. */
const ALSO: Partial<Readonly<Record<CommandName, readonly string[]>>> = {
  addAfter: ['add', 'create', 'insert', 'sibling'],
  addInside: ['child', 'subpage', 'add below', 'create'],
  rename: ['title', 'name'],
  nest: ['indent', 'child'],
  lift: ['outdent', 'promote'],
  moveTo: ['place', 'parent', 'section'],
  remove: ['delete', 'trash'],
  pasteList: ['bulk', 'many pages', 'titles'],
  walk: ['preview', 'view as', 'see the site'],
  map: ['diagram', 'chart'],
};

/** What stands in the list from another table, under its own words. */
const ELSEWHERE: ReadonlySet<CommandName> = new Set(['commands', 'walk', 'history', 'help']);

/** Everything that a key or a button does, found by typing, also under other words for it. */
export function CommandsDialog({ onClose }: { readonly onClose: () => void }) {
  const { run, setDialog, lens, chosen } = useWorkbench();
  const selected = useSelectionActions();
  // While something is typed the best command comes first, wherever it belongs.
  const [typed, setTyped] = useState('');
  const isFlat = typed.trim() !== '';
  const shared = [
    ...useViewActions(),
    ...Object.values(useSheetActions()).filter((one) => one !== null),
    ...useOtherActions(),
    useHelpActions()[0]!,
  ];
  /** In one step: a dialog that is asked for takes the place of the list, and gets the keyboard from it. */
  const choose = (work: () => void) => {
    setDialog(null);
    work();
  };
  return (
    <Command.Dialog
      open
      onOpenChange={(isOpen) => !isOpen && onClose()}
      label="Commands"
      filter={fitOf}
      overlayClassName="fixed inset-0 z-40 bg-ink/35 dark:bg-sunken/70"
      contentClassName="fixed top-[14vh] short:top-2 left-1/2 z-40 w-[calc(100vw-2rem)] max-w-lg -translate-x-1/2 overflow-hidden rounded-lg border border-rule bg-raised shadow-sheet"
    >
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder="What do you want to do?"
        className="h-12 w-full border-b border-rule bg-raised px-4 text-large outline-none"
      />
      <Command.List className="max-h-[min(24rem,60vh)] overflow-y-auto p-1.5">
        <Command.Empty className="px-3 py-4 text-quiet">No command matches.</Command.Empty>
        <Grouped heading="Pages and keys" isFlat={isFlat}>
          {(Object.entries(KEYS) as [CommandName, (typeof KEYS)[CommandName]][])
            .filter(([name]) => !ELSEWHERE.has(name))
            .map(([name, { keys, words }]) => (
              <Command.Item
                key={name}
                value={words}
                keywords={[...(ALSO[name] ?? [])]}
                onSelect={() => choose(() => (name === 'find' ? afterwards(() => run(name)) : run(name)))}
                className={ITEM}
              >
                <span className="flex-1">{words}</span>
                <kbd className="font-mono text-tiny text-quiet">{keys}</kbd>
              </Command.Item>
            ))}
        </Grouped>
        {[lens, ...LENSES.filter((one) => one !== lens)].map((one) => (
          <LensCommands key={one} lens={ALL_LENSES[one]} isFlat={isFlat} onChoose={choose} />
        ))}
        {chosen.length > 1 && (
          <Commands
            heading={`${chosen.length} selected`}
            actions={selected.filter(({ keys }) => keys === undefined)}
            isFlat={isFlat}
            onChoose={choose}
          />
        )}
        {SETTINGS_KEYS.map((key) => (
          <OfSettings key={key} of={key} isFlat={isFlat} onChoose={choose} />
        ))}
        <Commands heading="The tree and the site" actions={shared} isFlat={isFlat} onChoose={choose} />
      </Command.List>
    </Command.Dialog>
  );
}

const capital = (word: string): string => word[0]!.toUpperCase() + word.slice(1);

/** How well a command answers to what is typed: by its own words, by others for it, by words that are nearly typed so, or not at all (0). */
function fitOf(command: string, typed: string, also: readonly string[] = []): number {
  const words = typedWords(typed);
  const [own, all] = [folded(command), folded([command, ...also].join(' '))];
  if (words.every((word) => own.includes(word))) return own.startsWith(words[0] ?? '') ? 1 : 0.9;
  if (words.every((word) => all.includes(word))) return 0.6;
  return isNearText(words, all) ? 0.3 : 0;
}

interface Listed {
  /** Whether all stand in one list, the best first. */
  readonly isFlat: boolean;
  readonly onChoose: (work: () => void) => void;
}

/** Commands that belong together, below their heading; without it where all stand in one list. */
function Grouped({
  heading,
  isFlat,
  children,
}: {
  readonly heading: string;
  readonly isFlat: boolean;
  readonly children: ReactNode;
}) {
  return isFlat ? (
    children
  ) : (
    <Command.Group heading={heading} className={GROUP}>
      {children}
    </Command.Group>
  );
}

/** The settings of a kind by their names. */
function OfSettings({ of, ...rest }: { readonly of: SettingsKey } & Listed) {
  const { site, setBeside } = useWorkbench();
  const kind = SETTINGS[of];
  if (!('Fields' in kind)) return null;
  const actions = kind.items(site).map(({ id, name }) => ({
    label: name,
    words: `${capital(kind.one)} ‘${name}’`,
    Sign: kind.Sign,
    run: () => setBeside({ kind: of, id }),
  }));
  return <Commands heading={kind.title} actions={actions} {...rest} />;
}

function LensCommands({ lens, ...rest }: { readonly lens: LensDefinition } & Listed) {
  return lens.useActions ? <OfLens lens={lens.name} useActions={lens.useActions} {...rest} /> : null;
}

function OfLens({
  lens,
  useActions,
  ...rest
}: {
  readonly lens: string;
  readonly useActions: NonNullable<LensDefinition['useActions']>;
} & Listed) {
  return <Commands heading={lens} actions={useActions()} {...rest} />;
}

function Commands({
  heading,
  actions,
  isFlat,
  onChoose,
}: {
  readonly heading: string;
  readonly actions: readonly BarAction[];
} & Listed) {
  if (actions.length === 0) return null;
  return (
    <Grouped heading={heading} isFlat={isFlat}>
      {actions.map(({ label, words, also = [], keys, isOff, run }) => (
        <Command.Item
          key={words}
          value={words}
          keywords={[label, heading, ...also]}
          disabled={isOff}
          onSelect={() => onChoose(run)}
          className={`${ITEM} data-[disabled=true]:opacity-45`}
        >
          <span className="flex-1">{words}</span>
          {keys !== undefined && <kbd className="font-mono text-tiny text-quiet">{keys}</kbd>}
        </Command.Item>
      ))}
    </Grouped>
  );
}
