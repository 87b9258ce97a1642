import { BellDot } from 'lucide-react';
import { useMemo } from 'react';
import { momentWords } from '#core/model/moment-words.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { useAllChanges } from '../api/find.ts';
import { useSession } from '../api/session.ts';
import { MarkedRows } from '../settings/marked-rows.tsx';
import type { WholeKind } from '../settings/settings-kind.ts';
import { ShowRows } from '../settings/show-rows.tsx';
import { useMarkRows } from '../settings/use-mark-rows.ts';
import { pages } from '../tree/words.ts';
import { type Marks, useWorkbench } from '../workbench/workbench-context.tsx';
import { useLastHere } from './use-last-here.ts';

/** What others have changed since the person was last here, as marks in the tree and as a list. */
export const SINCE: WholeKind = {
  title: 'Since you were last here',
  Sign: BellDot,
  description:
    'The pages that others have changed, marked in the tree. A visit ends when you are away for half an hour.',
  Whole: Since,
};

function Since() {
  const { site, shown } = useWorkbench();
  const since = useLastHere(site.key);
  const own = useSession()?.account?.name;
  const changes = useAllChanges(site.key, shown.revision);
  const changed = useMemo(
    () =>
      since === null || !changes
        ? []
        : [...changes]
            .filter(([page, { by, at }]) => at > since && by !== own && site.nodes.get(page)?.removedWith === null)
            .sort(([, a], [, b]) => (a.at < b.at ? 1 : -1)),
    [since, changes, own, site],
  );
  const { timeZone, language } = site.settings;
  const marks = useMemo<Marks>(
    () => ({
      name: 'Changed by',
      words: new Map<PageId, string>(
        changed.map(([page, { by, at }]) => [page, `${by}, ${momentWords(at, timeZone)}`]),
      ),
    }),
    [changed, timeZone],
  );
  useMarkRows(changed.length > 0 ? marks : null);
  if (!changes) return <p className="text-quiet">Loading …</p>;
  if (since === null) return <p>This is your first visit. When you come back, what others have changed shows here.</p>;
  return (
    <div className="flex flex-col gap-4">
      {changed.length === 0 ? (
        <p>Nobody else has changed a page since {momentWords(since, timeZone)}.</p>
      ) : (
        <>
          <MarkedRows count={changed.length}>
            {pages(changed.length)} changed since {momentWords(since, timeZone)}.
          </MarkedRows>
          <ul aria-label="Changed pages" className="divide-y divide-rule rounded-md border border-rule bg-raised">
            {changed.map(([page, { by, at }]) => (
              <li key={page} className="px-3 py-1.5">
                <ShowRows pages={[page]}>{textIn(site.nodes.get(page)!.title, language)}</ShowRows>
                <span className="block text-small text-quiet">
                  {by}, {momentWords(at, timeZone)}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
