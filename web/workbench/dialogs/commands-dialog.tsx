import { Command } from 'cmdk';
import { KEYS, type CommandName } from '../keys.ts';
import { type DialogName, useWorkbench } from '../workbench-context.tsx';

interface Other {
  readonly words: string;
  readonly dialog: DialogName;
  /** Other words under which somebody may look for it. */
  readonly also?: readonly string[];
}

const OTHERS: readonly Other[] = [
  { words: 'Make live…', dialog: 'live', also: ['publish', 'release', 'schedule'] },
  { words: 'Take down…', dialog: 'retire', also: ['unpublish', 'retire'] },
  { words: 'Releases: take back, compare, scheduled…', dialog: 'releases', also: ['versions', 'revert', 'later'] },
  { words: 'Open the site, or close it for works…', dialog: 'opening', also: ['maintenance', 'launch'] },
  { words: 'Redirects and pages not found…', dialog: 'redirects', also: ['404', 'moved', 'old addresses'] },
  { words: 'Compare draft and live texts…', dialog: 'texts', also: ['differences', 'diff'] },
  { words: 'Menus…', dialog: 'menus', also: ['navigation'] },
  { words: 'Layouts…', dialog: 'layouts', also: ['header', 'footer', 'frame'] },
  { words: 'Facts of the site…', dialog: 'facts', also: ['telephone', 'address', 'strapline'] },
  { words: 'What search engines see…', dialog: 'engine', also: ['robot', 'index', 'crawl'] },
  { words: 'Removed pages', dialog: 'removed', also: ['put back', 'bin', 'trash'] },
  { words: 'Set fields of the selected pages…', dialog: 'setFields' },
  { words: 'Goals of the site…', dialog: 'goals' },
  { words: 'Import the old site…', dialog: 'oldSite' },
  { words: 'Import pages…', dialog: 'import' },
  { words: 'Begin from a starter…', dialog: 'starters' },
  { words: 'Audiences…', dialog: 'audiences' },
  { words: 'Labels and kinds…', dialog: 'labels' },
  { words: 'Compare who can open what…', dialog: 'compare' },
  { words: 'Visitors…', dialog: 'visitors' },
  { words: 'Share the plan for comment…', dialog: 'share' },
  { words: 'Rename this site…', dialog: 'renameSite' },
];
const ITEM = 'flex h-9 cursor-pointer items-center gap-4 rounded px-3 data-[selected=true]:bg-accent-soft';

/** Every command, found by typing. */
export function CommandsDialog({ onClose }: { readonly onClose: () => void }) {
  const { run, setDialog } = useWorkbench();
  const choose = (command: CommandName) => {
    setDialog(null);
    run(command);
  };
  return (
    <Command.Dialog
      open
      onOpenChange={(isOpen) => !isOpen && onClose()}
      label="Commands"
      overlayClassName="fixed inset-0 z-40 bg-ink/35 dark:bg-sunken/70"
      contentClassName="fixed top-[14vh] left-1/2 z-40 w-[calc(100vw-2rem)] max-w-lg -translate-x-1/2 overflow-hidden rounded-lg border border-rule bg-raised shadow-sheet"
    >
      <Command.Input
        placeholder="What do you want to do?"
        className="h-12 w-full border-b border-rule bg-raised px-4 text-large outline-none"
      />
      <Command.List className="max-h-80 overflow-y-auto p-1.5">
        <Command.Empty className="px-3 py-4 text-quiet">No command matches.</Command.Empty>
        {(Object.entries(KEYS) as [CommandName, (typeof KEYS)[CommandName]][])
          .filter(([name]) => name !== 'commands')
          .map(([name, { keys, words }]) => (
            <Command.Item key={name} value={words} onSelect={() => choose(name)} className={ITEM}>
              <span className="flex-1">{words}</span>
              <kbd className="font-mono text-tiny text-quiet">{keys}</kbd>
            </Command.Item>
          ))}
        {OTHERS.map(({ words, dialog, also = [] }) => (
          <Command.Item
            key={dialog}
            value={words}
            keywords={[...also]}
            onSelect={() => setDialog(dialog)}
            className={ITEM}
          >
            {words}
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
