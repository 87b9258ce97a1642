import { useMemo, useState } from 'react';
import { compareTrees } from '#core/changes/compare-trees.ts';
import { liveEffects } from '#core/changes/live-effects.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { ReleaseSummary } from '#contract/releases.ts';
import { useTreeAt } from '../../../api/sites.ts';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { Choice } from '../../../ui/field.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { titleIn } from '../publish-words.ts';
import { Effects } from '../release/effects.tsx';

const NOTHING: ReadonlySet<string> = new Set();

/** What visitors have after one release that they had not after another: pages, addresses, menus, who can open what. */
export function CompareReleases({ releases }: { readonly releases: readonly ReleaseSummary[] }) {
  const { site } = useWorkbench();
  const [earlier, setEarlier] = useState(releases[1]!.number);
  const [later, setLater] = useState(releases[0]!.number);
  const revisionOf = (number: number) => releases.find((one) => one.number === number)?.revision ?? null;
  const before = useTreeAt(site.key, revisionOf(earlier));
  const after = useTreeAt(site.key, revisionOf(later));
  const isHere = before?.revision === revisionOf(earlier) && after?.revision === revisionOf(later);
  const options = releases.map(({ number, name }) => (
    <option key={number} value={number}>
      Release {number}
      {name !== '' && `: ${name}`}
    </option>
  ));
  return (
    <section aria-labelledby="compare">
      <h3 id="compare" className="font-display text-large font-semibold">
        Compare two
      </h3>
      <div className="my-2 grid gap-3 @sm:grid-cols-2">
        <Choice label="From" value={earlier} onChange={(event) => setEarlier(Number(event.target.value))}>
          {options}
        </Choice>
        <Choice label="To" value={later} onChange={(event) => setLater(Number(event.target.value))}>
          {options}
        </Choice>
      </div>
      {isHere ? <Comparison before={before.site} after={after.site} /> : <p className="text-quiet">Loading …</p>}
    </section>
  );
}

function Comparison({ before, after }: { readonly before: Site; readonly after: Site }) {
  const now = useNow();
  const effects = useMemo(() => liveEffects(before, after, now, NOTHING), [before, after, now]);
  const { earlier } = useMemo(() => compareTrees(liveSiteOf(before), liveSiteOf(after)), [before, after]);
  useMarkRows(
    useMemo(
      () => ({
        name: 'Between the two',
        words: new Map([...earlier, ...[...effects.came].map((page) => [page, 'came'] as const)]),
      }),
      [earlier, effects],
    ),
  );
  const marked = (mark: string) => [...earlier].filter(([, one]) => one === mark).map(([page]) => page);
  return (
    <div className="flex flex-col gap-3">
      <Titles words="Came" pages={effects.came} site={after} />
      <Titles words="Went" pages={effects.went} site={before} />
      <Titles words="Moved" pages={marked('moved since')} site={after} />
      <Titles words="Renamed" pages={marked('renamed since')} site={after} />
      <Titles words="Changed in other ways" pages={marked('changed since')} site={after} />
      <Effects effects={effects} after={after} />
    </div>
  );
}

const MAX_LISTED = 12;

function Titles({
  words,
  pages,
  site,
}: {
  readonly words: string;
  readonly pages: readonly PageId[];
  readonly site: Site;
}) {
  if (pages.length === 0) return null;
  return (
    <p>
      <span className="font-medium">
        {words} ({pages.length}):
      </span>{' '}
      {pages
        .slice(0, MAX_LISTED)
        .map((page) => titleIn(site, page))
        .join(' · ')}
      {pages.length > MAX_LISTED && ` · and ${pages.length - MAX_LISTED} more`}
    </p>
  );
}
