import { Replace } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { FoundOnPage } from '#contract/replacing.ts';
import { wordsOfFault } from '../../api/client.ts';
import { replaceWords, useFoundWords } from '../../api/replacing.ts';
import { SheetFoot } from '../../settings/sheet-foot.tsx';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { ShowRows } from '../../settings/show-rows.tsx';
import { useMarkRows } from '../../settings/use-mark-rows.ts';
import { pages as pagesWords } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { TextField, Tick } from '../../ui/field.tsx';
import { useSettled } from '../../ui/use-settled.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { toast } from '../../ui/toast.ts';

/** Words that are replaced in the texts of all pages: what would change shows in the tree before it is done. */
export const REPLACING: WholeKind = {
  edits: 'write',
  title: 'Find and replace',
  Sign: Replace,
  description: 'Looks through the texts of all pages in the tree. Titles, addresses and what is live stay as they are.',
  needs: 'write',
  Whole: FindAndReplace,
};

const REST_MS = 300;
const LONGEST = 200;
/** So many pages are listed; the tree marks all of them. */
const LISTED = 100;
const NONE: readonly FoundOnPage[] = [];

function FindAndReplace() {
  const { site, shown } = useWorkbench();
  const [find, setFind] = useState('');
  const [by, setBy] = useState('');
  const [isWhole, setWhole] = useState(true);
  const [isExact, setExact] = useState(false);
  const [leftOut, setLeftOut] = useState<ReadonlySet<PageId>>(new Set());
  const [isReplacing, setReplacing] = useState(false);
  const asked = useSettled(find, REST_MS);
  const looked = useFoundWords(site.key, shown.revision, { find: asked, isWhole, isExact });
  const found = find === '' ? NONE : looked.pages;
  const isLooking = asked !== find || looked.isLooking;
  const chosen = found.filter(({ page }) => !leftOut.has(page));
  const count = chosen.reduce((sum, one) => sum + one.count, 0);
  const pick = (page: PageId) => setLeftOut((out) => toggled(out, page));
  useMarkRows(
    useMemo(
      () =>
        found.length === 0
          ? null
          : {
              name: 'Found',
              words: new Map(found.map((one) => [one.page, timesWords(one.count)])),
              ticks: {
                on: new Set(found.flatMap(({ page }) => (leftOut.has(page) ? [] : [page]))),
                of: new Set(found.map(({ page }) => page)),
                pick: (page) => setLeftOut((out) => toggled(out, page)),
              },
            },
      [found, leftOut],
    ),
  );
  const replace = async () => {
    setReplacing(true);
    try {
      const done = await replaceWords(
        site.key,
        { find, by, isWhole, isExact },
        chosen.map(({ page }) => page),
      );
      toast.success(`Replaced in ${placesWords(done.places)} on ${pagesWords(done.pages)}. Undo takes all of it back.`);
      setLeftOut(new Set());
    } catch (fault) {
      toast.error(wordsOfFault(fault));
    } finally {
      setReplacing(false);
    }
  };
  return (
    <form
      aria-label="Find and replace"
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (count > 0 && !isLooking && !isReplacing) void replace();
      }}
    >
      <TextField label="Find" maxLength={LONGEST} value={find} onChange={(event) => setFind(event.target.value)} />
      <TextField
        label="Replace with"
        maxLength={LONGEST}
        value={by}
        hint={find !== '' && by === '' ? 'Nothing: what is found is taken out.' : undefined}
        onChange={(event) => setBy(event.target.value)}
      />
      <div className="flex flex-wrap gap-x-5">
        <Tick label="Whole words only" checked={isWhole} onChange={() => setWhole(!isWhole)} />
        <Tick label="Capitals matter" checked={isExact} onChange={() => setExact(!isExact)} />
      </div>
      <p role="status" className="text-quiet">
        {find === ''
          ? ''
          : isLooking
            ? 'Looking …'
            : found.length === 0
              ? 'No text has it.'
              : `In ${placesWords(found.reduce((sum, one) => sum + one.count, 0))} on ${pagesWords(found.length)}, which the tree marks.`}
      </p>
      {found.length > 0 && (
        <ul aria-label="Found" className="flex flex-col divide-y divide-rule rounded-md border border-rule bg-raised">
          {found.slice(0, LISTED).map((one) => (
            <OnePage
              key={one.page}
              found={one}
              by={by}
              isChosen={!leftOut.has(one.page)}
              onPick={() => pick(one.page)}
            />
          ))}
        </ul>
      )}
      {found.length > LISTED && (
        <p className="text-small text-quiet">{pagesWords(found.length - LISTED)} more are marked in the tree.</p>
      )}
      {found.length > 0 && (
        <SheetFoot>
          <Button look="main" type="submit" disabled={count === 0 || isLooking || isReplacing}>
            {isReplacing ? 'Replacing …' : `Replace in ${placesWords(count)} on ${pagesWords(chosen.length)}`}
          </Button>
        </SheetFoot>
      )}
    </form>
  );
}

/** What was found on one page, and how it would read. */
function OnePage({
  found: { page, count, places },
  by,
  isChosen,
  onPick,
}: {
  readonly found: FoundOnPage;
  readonly by: string;
  readonly isChosen: boolean;
  readonly onPick: () => void;
}) {
  const { site } = useWorkbench();
  const title = textIn(maybeNodeAt(site, page)?.title ?? {}, site.settings.language);
  return (
    <li className="flex items-start gap-2 px-3 py-2">
      <input
        type="checkbox"
        aria-label={`Replace on ${title}`}
        className="mt-1 size-4 accent-accent"
        checked={isChosen}
        onChange={onPick}
      />
      <div className={`min-w-0 flex-1 ${isChosen ? '' : 'text-quiet line-through decoration-edge'}`}>
        <p className="font-medium">
          <ShowRows pages={[page]}>{title}</ShowRows>
          {count > 1 && <span className="text-small font-normal text-quiet"> {timesWords(count)}</span>}
        </p>
        {places.map((place, at) => (
          <p key={at} className="text-small wrap-anywhere">
            {place.before.length > 34 && '…'}
            {place.before}
            <del className="text-danger">{place.found}</del>
            {by !== '' && <ins className="bg-accent-soft no-underline">{by}</ins>}
            {place.after}
            {place.after.length > 34 && '…'}
          </p>
        ))}
        {count > places.length && <p className="text-small text-quiet">and {count - places.length} more</p>}
      </div>
    </li>
  );
}

const timesWords = (count: number): string => (count === 1 ? 'once' : `${count} times`);
const placesWords = (count: number): string => (count === 1 ? '1 place' : `${count} places`);

function toggled(out: ReadonlySet<PageId>, page: PageId): ReadonlySet<PageId> {
  const next = new Set(out);
  if (!next.delete(page)) next.add(page);
  return next;
}
