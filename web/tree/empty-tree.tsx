import { ClipboardPaste, Globe, Plus, Sprout } from 'lucide-react';
import type { LucideIcon } from 'lucide-react';
import { useWorkbench } from '../workbench/workbench-context.tsx';

interface FirstStep {
  readonly name: string;
  readonly says: string;
  readonly Sign: LucideIcon;
  readonly take: () => void;
}

/** What stands in place of a tree that has no page yet: the ways to begin it. */
export function EmptyTree() {
  const { site, run, mayEdit, setDialog, setBeside, setEditing } = useWorkbench();
  const steps: readonly FirstStep[] = [
    {
      name: 'Add the first page',
      says: 'Type a title, press Enter and type the next. The first page becomes the home page.',
      Sign: Plus,
      take: () => setEditing({ kind: 'add', parent: null, after: null }),
    },
    {
      name: 'Begin from a starter…',
      says: 'A set of pages to choose from and rename on the way.',
      Sign: Sprout,
      take: () => setDialog('starters'),
    },
    {
      name: 'Make pages from a list…',
      says: 'Titles from a document or a sheet, a line each; spaces at the beginning nest them.',
      Sign: ClipboardPaste,
      take: () => run('pasteList'),
    },
    {
      name: 'Read the old site…',
      says: 'Its addresses come in, and Spur proposes which planned page takes over which.',
      Sign: Globe,
      take: () => setBeside({ kind: 'old-site', id: null }),
    },
  ];
  return (
    <div
      data-tree-view
      role="group"
      aria-label="Pages"
      // The keys make the first page as they make the others.
      tabIndex={-1}
      className="@container flex flex-1 flex-col items-center overflow-y-auto bg-raised p-6 outline-none"
    >
      <div className="my-auto w-full max-w-2xl">
        <h2 className="font-display text-title leading-tight font-semibold">Begin the tree of {site.settings.name}</h2>
        <p className="mt-1 text-quiet">
          {mayEdit ? 'The tree begins with one page. There are four ways to it.' : 'It has no page yet.'}
        </p>
        {mayEdit && (
          <ul className="mt-4 grid gap-3 @md:grid-cols-2">
            {steps.map(({ name, says, Sign, take }) => (
              <li key={name}>
                <button
                  type="button"
                  onClick={take}
                  className="flex h-full w-full items-start gap-3 rounded-md border border-edge bg-paper px-4 py-3 text-left hover:border-accent hover:bg-accent-soft"
                >
                  <Sign size={20} aria-hidden className="mt-0.5 shrink-0 text-accent" />
                  <span>
                    <span className="block font-medium">{name}</span>
                    <span className="block text-small text-quiet">{says}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
