import { ArrowLeft, ChevronDown, ChevronUp, X } from 'lucide-react';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import { useDrag } from '../drag/drag-context.ts';
import { TREE_VIEW } from '../workbench/lenses.ts';
import { IconButton } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { SETTINGS } from './all-settings.ts';
import { OneSetting } from './one-setting.tsx';
import type { Beside } from './settings-keys.ts';
import { SettingsList } from './settings-list.tsx';
import { useGiveTarget } from './use-give-target.ts';

/** Settings of the site beside its tree: a list of them, then one with its fields. */
export function SettingsSheet({ beside }: { readonly beside: Beside }) {
  const { site, derived, setBeside, focusTree, mayEdit, mayPublish } = useWorkbench();
  const kind = SETTINGS[beside.kind];
  const isClosed = (kind.needs === 'edit' && !mayEdit) || (kind.needs === 'publish' && !mayPublish);
  const list = 'Fields' in kind ? kind : null;
  const listed = list?.listed(site, derived) ?? [];
  const at = listed.findIndex(({ id }) => id === beside.id);
  const item = at === -1 ? null : listed[at]!;
  useGiveTarget(beside.kind);
  const { drag } = useDrag();
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // Who works in the tree stays there; whoever asked for this from elsewhere is brought here, where letters do nothing.
    const now = document.activeElement;
    if (now?.closest(TREE_VIEW) || heading.current?.closest('aside')?.contains(now)) return;
    heading.current?.focus();
  }, [beside.kind, beside.id]);
  const close = () => {
    setBeside(null);
    window.setTimeout(focusTree, 0);
  };
  const back = () => {
    setBeside({ kind: beside.kind, id: null });
    heading.current?.focus();
  };
  const go = (step: number) => setBeside({ kind: beside.kind, id: listed[at + step]!.id });
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.isDefaultPrevented()) return;
    event.preventDefault();
    if (item) back();
    else close();
  };
  const { Sign } = kind;
  return (
    // Escape goes a step back from wherever the keyboard is in here.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <aside
      aria-label={kind.title}
      onKeyDown={onKey}
      className="@container flex min-h-0 flex-1 flex-col border-l border-rule bg-paper max-md:border-l-0"
    >
      <header className="flex items-start gap-1 border-b border-rule py-2 pr-2 pl-4">
        {item ? (
          <IconButton name={`All ${kind.title.toLowerCase()}`} onClick={back} className="-ml-2">
            <ArrowLeft size={17} aria-hidden />
          </IconButton>
        ) : (
          <Sign size={18} aria-hidden className="mt-1.5 mr-1 shrink-0 text-accent" />
        )}
        <h2
          ref={heading}
          tabIndex={-1}
          className="min-w-0 flex-1 py-1 font-display text-large leading-tight font-semibold outline-none"
        >
          {item ? item.name : kind.title}
        </h2>
        {item && listed.length > 1 && (
          <>
            <IconButton name={`The ${list!.one} before`} disabled={at === 0} onClick={() => go(-1)}>
              <ChevronUp size={17} aria-hidden />
            </IconButton>
            <IconButton name={`The next ${list!.one}`} disabled={at === listed.length - 1} onClick={() => go(1)}>
              <ChevronDown size={17} aria-hidden />
            </IconButton>
          </>
        )}
        <IconButton name={`Close ${kind.title.toLowerCase()}`} onClick={close}>
          <X size={17} aria-hidden />
        </IconButton>
      </header>
      <div
        // Rows of the tree can be dropped on the setting that is open, too.
        data-give={item && list!.give ? item.id : undefined}
        className={`min-h-0 flex-1 scroll-pb-20 overflow-y-auto p-4 ${item && drag?.giving === item.id ? 'bg-accent-soft' : ''}`}
      >
        {!item && <p className="mb-4 text-quiet">{kind.description}</p>}
        {isClosed ? (
          <p>
            This needs permission to {kind.needs === 'publish' ? 'publish' : 'edit the site'}, and is closed while you
            look at an earlier tree.
          </p>
        ) : 'Whole' in kind ? (
          <kind.Whole />
        ) : item ? (
          <OneSetting key={item.id} kind={kind} item={item} onGone={back} />
        ) : (
          <SettingsList of={beside.kind} kind={kind} listed={listed} />
        )}
      </div>
    </aside>
  );
}
