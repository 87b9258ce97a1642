import { newPageId } from '../api/site-store.ts';
import { type Editing, useWorkbench } from '../workbench/workbench-context.tsx';
import { railsWidth } from './rails.tsx';
import { TitleInput } from './title-input.tsx';

/** The row in which a new page is typed. Enter makes it and opens the next one after it; an empty Enter ends. */
export function NewRow({
  adding,
  depth,
}: {
  readonly adding: Extract<Editing, { kind: 'add' }>;
  readonly depth: number;
}) {
  const { site, store, select, setEditing, focusTree } = useWorkbench();
  const make = (title: string) => {
    if (title.trim() === '') return null;
    const page = newPageId();
    const refused = store.apply([
      {
        name: 'page.add',
        page,
        place: { parent: adding.parent, after: adding.after },
        title: { [site.settings.language]: title },
      },
    ]);
    if (refused !== null) return null;
    select({ active: page, chosen: new Set([page]), anchor: page });
    return page;
  };
  const width = railsWidth(depth);
  return (
    <div role="row" className="flex h-row items-center bg-accent-soft pr-2 pl-1">
      <div role="gridcell" className="flex min-w-0 flex-1 items-center">
        <svg width={width} height="32" fill="none" aria-hidden className="shrink-0 text-accent">
          <path d={`M${width - 14} 0V16`} stroke="currentColor" strokeWidth="2" strokeDasharray="3.5 3" />
          <circle cx={width - 14} cy="16" r="4.5" fill="var(--raised)" stroke="currentColor" strokeWidth="2" />
        </svg>
        <span className="mr-0.5 size-5 shrink-0" />
        <TitleInput
          key={adding.after}
          label="Title of the new page"
          start=""
          placeholder="Title of the new page"
          onEnter={(title) => {
            const page = make(title);
            setEditing(page === null ? null : { kind: 'add', parent: adding.parent, after: page });
            if (page === null) focusTree();
          }}
          onLeave={(title) => {
            make(title);
            setEditing(null);
          }}
          onCancel={() => {
            setEditing(null);
            focusTree();
          }}
        />
      </div>
    </div>
  );
}
