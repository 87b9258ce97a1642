import { useMemo, useState } from 'react';
import { type TreeMark, compareTrees } from '#core/changes/compare-trees.ts';
import { liveEffects } from '#core/changes/live-effects.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { MarkedRows } from '../../../settings/marked-rows.tsx';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { pages } from '../../../tree/words.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { PageTitles } from '../page-titles.tsx';
import { Effects } from '../release/effects.tsx';

const NO_REDIRECTS: ReadonlySet<string> = new Set();
const WORDS: Readonly<Record<TreeMark, string>> = {
  'gone since': 'went',
  'moved since': 'moved',
  'renamed since': 'renamed',
  'changed since': 'changed',
};

/** What visitors have after one state of the live site that they had not before: listed, and marked in the tree. */
export function LiveDifference({
  before,
  after,
  name,
}: {
  readonly before: Site;
  readonly after: Site;
  /** What the marks are about. */
  readonly name: string;
}) {
  const { derived } = useWorkbench();
  // Of what has been, the clock changes nothing.
  const [now] = useState(() => Date.now());
  const effects = useMemo(() => liveEffects(before, after, now, NO_REDIRECTS), [before, after, now]);
  const marks = useMemo(() => {
    const { earlier, added } = compareTrees(liveSiteOf(before), liveSiteOf(after));
    const words = new Map<PageId, string>(added.map((page) => [page, 'came']));
    for (const [page, mark] of earlier) words.set(page, WORDS[mark]);
    return { name, words };
  }, [before, after, name]);
  useMarkRows(marks);
  const inTree = [...marks.words.keys()].filter((page) => derived.outline.rowOf.has(page)).length;
  const those = (words: string) => [...marks.words].filter(([, one]) => one === words).map(([page]) => page);
  return (
    <div className="flex flex-col gap-4">
      <MarkedRows count={inTree}>
        {inTree === 0 ? 'It differs in no page of the tree.' : `${pages(inTree)} marked in the tree.`}
      </MarkedRows>
      <div className="flex flex-col gap-1.5">
        <Titles words="Came" pages={those('came')} site={after} />
        <Titles words="Went" pages={those('went')} site={before} />
        <Titles words="Moved" pages={those('moved')} site={after} />
        <Titles words="Renamed" pages={those('renamed')} site={after} />
        <Titles words="Changed in other ways" pages={those('changed')} site={after} />
      </div>
      <Effects effects={effects} after={after} />
    </div>
  );
}

function Titles({
  words,
  pages: these,
  site,
}: {
  readonly words: string;
  readonly pages: readonly PageId[];
  readonly site: Site;
}) {
  if (these.length === 0) return null;
  return (
    <p>
      <span className="font-medium">
        <ShowRows pages={these}>
          {words} ({these.length})
        </ShowRows>
        :
      </span>{' '}
      <PageTitles ids={these} site={site} />
    </p>
  );
}
