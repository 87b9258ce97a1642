import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { addList } from '#core/arrange/grow.ts';
import { placeOn } from '#core/arrange/landing.ts';
import type { Side } from '#core/model/place.ts';
import { type ListNote, readIndentedList } from '#core/formats/indented-list.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { newPageId, refusalWords } from '../api/site-store.ts';
import { useKept } from '../fields/use-kept.ts';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextArea } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { PlaceChoice } from '../fields/place-choice.tsx';
import { numberWords } from '../ui/number-words.ts';
import { toast } from '../ui/toast.ts';

const NOTE_WORDS: Readonly<Record<ListNote['what'], string>> = {
  'no-title': 'No letter or digit: left out',
  'title-cut': 'Too long for a title: cut to 300 characters',
  'step-skipped': 'Skips a level: placed one level below the line above',
  'too-deep': 'Too deep: placed on the deepest level',
  'marks-taken-out': 'Invisible characters removed',
};
/** So many lines are shown before they are made; all are made. */
const MAX_SHOWN = 200;

/** Makes a branch of a list of titles; shows the tree that comes of it, and what was not taken as it stood. */
export function PasteListDialog({ text: pasted, onClose }: { readonly text: string; readonly onClose: () => void }) {
  const { site, store, selection, select, setOpen, run } = useWorkbench();
  const setPreview = usePreview();
  const [text, setText] = useKept(`list ${site.key}`, pasted);
  const shown = useDeferredValue(text);
  const [beside, setBeside] = useState(selection.active === site.practice ? null : selection.active);
  const [side, setSide] = useState<Side>('after');
  const list = useMemo(() => readIndentedList(shown), [shown]);
  const place = placeOn(site, beside, side);
  const operations = useMemo(
    () =>
      list.ok
        ? addList(list.entries, { parent: place.parent, after: place.after }, site.settings.language, newPageId)
        : [],
    [list, place.parent, place.after, site.settings.language],
  );
  const outcome = useMemo(() => (operations.length > 0 ? applyOperations(site, operations) : null), [site, operations]);
  useEffect(() => {
    setPreview(outcome?.ok ? operations : null);
  }, [outcome, operations, setPreview]);
  const submit = () => {
    if (!outcome?.ok || store.apply(operations) !== null) return;
    if (place.parent !== null) setOpen(place.parent, true);
    const tops = operations.filter((one) => one.place.parent === place.parent).map((one) => one.page);
    for (const operation of operations) if (operation.place.parent !== null) setOpen(operation.place.parent, true);
    select({ active: tops[0]!, chosen: new Set(tops), anchor: tops[0]! });
    setText('');
    toast(`Made ${pages(operations.length)}.`, { action: { label: 'Undo', onClick: () => run('undo') } });
    onClose();
  };
  return (
    <Dialog
      title="Make pages from a list"
      description="One title a line. Indent with tabs or spaces; bullets, numbers and Markdown headings are understood."
      isOpen
      startsAtHeading={pasted !== ''}
      onEnter={submit}
      isWide
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={!outcome?.ok} onClick={submit}>
            {operations.length === 0 ? 'Make pages' : `Make ${pages(operations.length)}`}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-3">
        <div className="grid gap-4 md:grid-cols-2">
          {list.ok || text.length < 20_000 ? (
            <TextArea
              label="The list"
              rows={12}
              value={text}
              spellCheck={false}
              placeholder={'Courses\n\tShort courses\n\tLong courses\nVisit us'}
              onChange={(event) => setText(event.target.value)}
            />
          ) : (
            <p className="text-quiet">The text is too large to be shown here.</p>
          )}
          <div>
            <p className="mb-1 text-small font-medium">What it makes</p>
            <Preview list={list} />
          </div>
        </div>
        {list.ok && list.notes.length > 0 && <Notes notes={list.notes} />}
        <PlaceChoice page={beside} side={side} onPage={setBeside} onSide={setSide} />
        <div role="status">
          {outcome && !outcome.ok && <Notice>{refusalWords(outcome, site)}</Notice>}
          {!list.ok && <Notice>{tooMuch(list)}</Notice>}
        </div>
      </div>
    </Dialog>
  );
}

const tooMuch = ({ why, most, found }: { why: 'too-many-lines' | 'too-large'; most: number; found: number }): string =>
  why === 'too-many-lines'
    ? `The list has ${numberWords(found)} titles; at most ${numberWords(most)} pages are made at once. Nothing was made. Paste it in parts.`
    : `The text has ${numberWords(found)} characters; at most ${numberWords(most)} are read at once. Nothing was made. Paste it in parts.`;

function Preview({ list }: { readonly list: ReturnType<typeof readIndentedList> }) {
  const entries = list.ok ? list.entries : [];
  return (
    <ul
      aria-label="Pages from the list"
      className="h-64 overflow-y-auto rounded-md border border-rule bg-paper p-2"
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- it scrolls
      tabIndex={0}
    >
      {entries.length === 0 && <li className="text-quiet">The pages appear here as you type titles.</li>}
      {entries.slice(0, MAX_SHOWN).map(({ title, depth, line }) => (
        <li
          key={line}
          className="truncate border-l-2 border-dashed border-edge py-0.5 pl-2"
          style={{ marginLeft: `${Math.min(depth, 12) * 1.1}rem` }}
        >
          {title}
        </li>
      ))}
      {entries.length > MAX_SHOWN && <li className="text-quiet">and {entries.length - MAX_SHOWN} more</li>}
    </ul>
  );
}

/** What was not taken as it stood: each kind with how often, and the lines on demand. */
function Notes({ notes }: { readonly notes: readonly ListNote[] }) {
  const kinds = Map.groupBy(notes, ({ what }) => what);
  return (
    <details open={notes.length <= 3} className="rounded-md bg-attention-soft px-3 py-2 text-small">
      <summary className="font-medium text-attention">
        {notes.length === 1 ? '1 line was not taken as it stands' : `${numberWords(notes.length)} lines were changed`}
        {notes.length > 3 && (
          <span className="block font-normal text-ink">
            {[...kinds].map(([what, list]) => `${NOTE_WORDS[what]} (${numberWords(list.length)}).`).join(' ')}
          </span>
        )}
      </summary>
      <ul className="mt-1 max-h-32 overflow-y-auto">
        {notes.slice(0, MAX_SHOWN).map(({ line, what, text }, index) => (
          <li key={index}>
            Line {line}: <span className="font-mono">{text}</span>. {NOTE_WORDS[what]}.
          </li>
        ))}
      </ul>
    </details>
  );
}
