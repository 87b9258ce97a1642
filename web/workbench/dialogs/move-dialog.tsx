import { type KeyboardEvent, useCallback, useEffect, useMemo, useState } from 'react';
import { topmost } from '#core/arrange/arrange.ts';
import { moveToPlace, placeOn } from '#core/arrange/landing.ts';
import type { Side } from '#core/model/place.ts';
import { shownTrail } from '#core/derive/shown-trail.ts';
import { whatChanges } from '#core/changes/what-changes.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { refusalWords } from '../../api/site-store.ts';
import { choiceId } from '../../fields/choice-id.ts';
import { PageTreeList } from '../../fields/page-tree-list.tsx';
import { usePageChoice } from '../../fields/use-page-choice.ts';
import { SIDES, addresses, pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Radios } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { menuChangeWords } from '../menu-change-words.ts';
import { useWorkbench } from '../workbench-context.tsx';
import { usePreview } from '../use-preview.ts';

const AT_TOP = [{ value: 'top', words: 'The end of the top level' }];
const LIST = 'places';

/** Chooses a place in the tree for the selected nodes; what the move would change shows meanwhile. */
export function MoveDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store, chosen, select } = useWorkbench();
  const setPreview = usePreview();
  const [taken, take] = useState<string | null>(null);
  const [side, setSide] = useState<Side>('inside');
  const { language } = site.settings;
  const moved = useMemo(() => topmost(site, chosen), [site, chosen]);
  const within = useMemo(() => new Set(moved.flatMap((id) => branchOf(site, id))), [site, moved]);
  const isOffered = useCallback((_: number, page: PageId) => !within.has(page), [within]);
  const choice = usePageChoice(taken, AT_TOP, isOffered);
  const { active: target } = choice;
  const isAtTop = target === AT_TOP[0]!.value;
  const operations = useMemo(
    () =>
      target === null ? [] : moveToPlace(site, moved, placeOn(site, isAtTop ? null : (target as PageId), side, moved)),
    [site, moved, target, isAtTop, side],
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
  /** The arrow keys walk the places, Enter moves to the one that is lit. */
  const onKey = (event: KeyboardEvent) => {
    if (choice.walk(event) || event.key !== 'Enter') return;
    event.preventDefault();
    submit();
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
          role="combobox"
          aria-haspopup="tree"
          aria-expanded
          aria-controls={LIST}
          aria-autocomplete="list"
          aria-activedescendant={target === null ? undefined : choiceId(LIST, target)}
          value={choice.query}
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the dialog was opened to choose a place
          autoFocus
          onChange={(event) => choice.type(event.target.value)}
          onKeyDown={onKey}
          className="h-9 w-full rounded-md border border-edge bg-paper px-3"
        />
        <PageTreeList
          id={LIST}
          label="Places"
          others={choice.others}
          site={site}
          choices={choice.choices}
          active={target}
          onChoose={(place) => {
            take(place);
            choice.walkTo(place);
          }}
          className="h-64 rounded-md border border-rule bg-paper p-1 short:h-40"
        />
        {!isAtTop && <Radios legend="Where, relative to it" choices={SIDES} value={side} onChoose={setSide} />}
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
