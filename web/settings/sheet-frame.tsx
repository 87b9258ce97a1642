import { ArrowLeft, ChevronDown, ChevronUp, X } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react';
import { useDrag } from '../drag/drag-context.ts';
import { IconButton } from '../ui/button.tsx';
import { TREE_VIEW } from '../workbench/lenses.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { SETTINGS } from './all-settings.ts';
import type { Named } from './settings-kind.ts';
import type { Beside } from './settings-keys.ts';
import { useCloseSheet } from './use-close-sheet.ts';

const NO_ITEMS: readonly Named[] = [];

/** Goes from one of the settings back to the list of all. */
export function useBack({ kind }: Beside): () => void {
  const { setBeside } = useWorkbench();
  return () => setBeside({ kind, id: null });
}

/** What all sheets beside the tree have in common: heading, the way back, to the next one and out, and Escape. */
export function SheetFrame({
  beside,
  items = NO_ITEMS,
  isGiven = false,
  children,
}: {
  readonly beside: Beside;
  /** Those that the way to the next one goes through, in order. */
  readonly items?: readonly Named[];
  /** Whether rows of the tree can be dropped on the one that is open. */
  readonly isGiven?: boolean;
  readonly children: ReactNode;
}) {
  const { setBeside } = useWorkbench();
  const kind = SETTINGS[beside.kind];
  const at = beside.id === null ? -1 : items.findIndex(({ id }) => id === beside.id);
  const { drag, isCarrying } = useDrag();
  const goBack = useBack(beside);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // Who works in the tree stays there; whoever asked for this from elsewhere is brought here, where letters do nothing.
    const now = document.activeElement;
    if (now?.closest(TREE_VIEW) || heading.current?.closest('aside')?.contains(now)) return;
    heading.current?.focus();
  }, [beside.kind, beside.id]);
  const close = useCloseSheet();
  const back = () => {
    goBack();
    heading.current?.focus();
  };
  const go = (step: number) => setBeside({ kind: beside.kind, id: items[at + step]!.id });
  const onKey = (event: KeyboardEvent) => {
    // While something is carried Escape is for that.
    if (event.key !== 'Escape' || event.isDefaultPrevented() || isCarrying) return;
    event.preventDefault();
    if (beside.id === null) close();
    else back();
  };
  const { Sign, title } = kind;
  const one = 'one' in kind ? kind.one : '';
  return (
    // Escape goes a step back from wherever the keyboard is in here.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <aside
      aria-label={title}
      onKeyDown={onKey}
      className="@container flex min-h-0 flex-1 flex-col border-l border-rule bg-paper max-md:border-l-0"
    >
      <header className="flex items-start gap-1 border-b border-rule py-2 pr-2 pl-4">
        {beside.id === null ? (
          <Sign size={18} aria-hidden className="mt-1.5 mr-1 shrink-0 text-accent" />
        ) : (
          <IconButton name={`All ${title.toLowerCase()}`} onClick={back} className="-ml-2">
            <ArrowLeft size={17} aria-hidden />
          </IconButton>
        )}
        <h2
          ref={heading}
          tabIndex={-1}
          className="min-w-0 flex-1 py-1 font-display text-large leading-tight font-semibold wrap-anywhere outline-none"
        >
          {at === -1 ? title : items[at]!.name}
        </h2>
        {at !== -1 && items.length > 1 && (
          <>
            <IconButton name={`The ${one} before`} disabled={at === 0} onClick={() => go(-1)}>
              <ChevronUp size={17} aria-hidden />
            </IconButton>
            <IconButton name={`The next ${one}`} disabled={at === items.length - 1} onClick={() => go(1)}>
              <ChevronDown size={17} aria-hidden />
            </IconButton>
          </>
        )}
        <IconButton name={`Close ${title.toLowerCase()}`} onClick={close}>
          <X size={17} aria-hidden />
        </IconButton>
      </header>
      <div
        data-give={isGiven && at !== -1 ? items[at]!.id : undefined}
        className={`min-h-0 flex-1 scroll-pb-20 overflow-y-auto p-4 ${at !== -1 && drag?.giving === items[at]!.id ? 'bg-accent-soft' : ''}`}
      >
        {beside.id === null && <p className="mb-4 text-quiet">{kind.description}</p>}
        {children}
      </div>
    </aside>
  );
}
