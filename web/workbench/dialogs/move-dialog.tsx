import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { topmost } from '#core/arrange/arrange.ts';
import { type Side, moveToPlace, placeOn } from '#core/arrange/landing.ts';
import { findRows } from '#core/derive/visible-rows.ts';
import { shownTrail } from '#core/derive/shown-trail.ts';
import { whatChanges } from '#core/changes/what-changes.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { refusalWords } from '../../api/site-store.ts';
import { SIDES, addresses, pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Radios } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { menuChangeWords } from '../menu-change-words.ts';
import { useWorkbench } from '../workbench-context.tsx';
import { usePreview } from '../use-preview.ts';

/** So many places are listed at most; the find field narrows them. */
const MAX_LISTED = 300;

/** Chooses a place in the tree for the selected nodes; what the move would change shows meanwhile. */
export function MoveDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, derived, store, chosen, select } = useWorkbench();
  const setPreview = usePreview();
  const [query, setQuery] = useState('');
  const [target, setTarget] = useState<PageId | null>(null);
  const [side, setSide] = useState<Side>('inside');
  const { outline } = derived;
  const { language } = site.settings;
  const moved = useMemo(() => topmost(site, chosen), [site, chosen]);
  const within = useMemo(() => new Set(moved.flatMap((id) => branchOf(site, id))), [site, moved]);
  const rows = useMemo(() => {
    const found = query.trim() === '' ? null : findRows(site, outline, query);
    const all = found ? found.rows : outline.nodes.map((_, row) => row);
    return all.filter((row) => !within.has(outline.nodes[row]!.id));
  }, [site, outline, query, within]);
  const operations = useMemo(
    () => (target === null ? [] : moveToPlace(site, moved, placeOn(site, target, side, moved))),
    [site, moved, target, side],
  );
  const outcome = useMemo(() => (operations.length > 0 ? applyOperations(site, operations) : null), [site, operations]);
  useEffect(() => {
    setPreview(operations.length > 0 ? operations : null);
  }, [operations, setPreview]);

  const titles = moved.map((id) => textIn(nodeAt(site, id).title, language));
  const changes = outcome?.ok ? whatChanges(site, outcome.site) : null;
  const submit = () => {
    if (!outcome?.ok || store.apply(operations) !== null) return;
    select({ active: moved[0]!, chosen: new Set(moved), anchor: moved[0]! });
    onClose();
  };
  /** The arrow keys walk the places, Enter moves: in the field and in the list alike. */
  const walk = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp' && event.key !== 'Enter') return;
    event.preventDefault();
    if (event.key === 'Enter') return submit();
    const at = rows.findIndex((row) => outline.nodes[row]!.id === target);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))];
    if (next !== undefined) setTarget(outline.nodes[next]!.id);
  };
  return (
    <Dialog
      title={moved.length === 1 ? `Move ‘${titles[0]}’` : `Move ${moved.length} branches`}
      description="This moves the pages themselves. Menus and trails follow."
      isOpen
      isWide
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={!outcome?.ok} onClick={submit}>
            Move {pages(within.size)}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-3">
        <input
          aria-label="Find a place by title"
          placeholder="Find a place by title"
          value={query}
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the dialog was opened to choose a place
          autoFocus
          onChange={(event) => setQuery(event.target.value)}
          onKeyDown={walk}
          className="h-9 w-full rounded-md border border-edge bg-paper px-3"
        />
        <PlaceList rows={rows.slice(0, MAX_LISTED)} target={target} onChoose={setTarget} onKeyDown={walk} />
        {rows.length > MAX_LISTED && (
          <p className="text-small text-quiet">The first {MAX_LISTED} places. Type part of a title to find more.</p>
        )}
        {rows.length === 0 && <p className="text-quiet">No other title matches.</p>}
        <Radios legend="Where, relative to the chosen page" choices={SIDES} value={side} onChoose={setSide} />
        <div role="status" className="min-h-10">
          {outcome && !outcome.ok && <Notice>{refusalWords(outcome, site)}</Notice>}
          {target !== null && operations.length === 0 && <p className="text-quiet">It is already there.</p>}
          {changes && outcome?.ok && <TrailsOfMove before={site} after={outcome.site} page={moved[0]!} />}
          {changes && outcome?.ok && (
            <p className="text-small">
              {menuChangeWords(site, outcome.site, moved[0]!, changes.menus).join('; ') || 'No menu changes.'}
            </p>
          )}
          {changes && (
            <p>
              {changes.addresses.length === 0 ? 'No address changes.' : `${addresses(changes.addresses.length)}.`}{' '}
              {changes.addresses[0] && (
                <span className="font-mono text-small">
                  <span className="text-quiet line-through">{changes.addresses[0].before}</span> →{' '}
                  {changes.addresses[0].after}
                </span>
              )}
            </p>
          )}
        </div>
      </div>
    </Dialog>
  );
}

/** The trail of what is moved, before and after. */
function TrailsOfMove({ before, after, page }: { readonly before: Site; readonly after: Site; readonly page: PageId }) {
  const [was, is] = [before, after].map((one) =>
    shownTrail(one, page)
      .steps.map(({ text }) => text)
      .join(' › '),
  );
  return (
    <p className="text-small">
      <span className="text-quiet line-through">{was}</span> → {is}
    </p>
  );
}

function PlaceList({
  rows,
  target,
  onChoose,
  onKeyDown,
}: {
  readonly rows: readonly number[];
  readonly target: PageId | null;
  readonly onChoose: (page: PageId) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}) {
  const { site, derived } = useWorkbench();
  const { outline } = derived;
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [target]);
  return (
    <ul
      ref={list}
      role="listbox"
      tabIndex={0}
      onKeyDown={onKeyDown}
      aria-activedescendant={target === null ? undefined : `place-${target}`}
      aria-label="Places"
      className="h-64 overflow-y-auto rounded-md border border-rule bg-paper p-1"
    >
      {rows.map((row) => {
        const node = outline.nodes[row]!;
        return (
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the find field above walks the list by its arrow keys
          <li
            key={node.id}
            id={`place-${node.id}`}
            role="option"
            aria-selected={node.id === target}
            onClick={() => onChoose(node.id)}
            className={`flex h-7 cursor-pointer items-center truncate rounded pr-2 ${node.id === target ? 'bg-accent text-on-accent' : 'hover:bg-accent-soft'}`}
            style={{ paddingLeft: `${0.5 + outline.depth[row]! * 1.1}rem` }}
          >
            <span className="truncate">{textIn(node.title, site.settings.language)}</span>
            {node.type !== 'page' && <span className="ml-2 text-tiny opacity-80">{node.type}</span>}
          </li>
        );
      })}
    </ul>
  );
}
