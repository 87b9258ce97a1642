import { MessageSquare } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { useOpenThreads } from '../api/talk.ts';
import { ListOfSettings, ListedItem } from '../settings/listed-item.tsx';
import { MarkedRows } from '../settings/marked-rows.tsx';
import type { AskedKind, Named } from '../settings/settings-kind.ts';
import { useMarkRows } from '../settings/use-mark-rows.ts';
import { pages } from '../tree/words.ts';
import { type Marks, useWorkbench } from '../workbench/workbench-context.tsx';
import { PageTalk } from './page-talk.tsx';

/** What is said of the pages of the site, by colleagues and by guests of the plan: page by page, then one page. */
export const COMMENTS: AskedKind = {
  title: 'Comments',
  one: 'page',
  Sign: MessageSquare,
  description:
    'What colleagues and guests of the plan say of pages, passages and sections, and nobody has settled yet. The pages are marked in the tree.',
  useItems: usePagesInTalk,
  List: Pages,
  One: ({ id }) => <OnePage page={id as PageId} />,
};

const waitWords = (count: number): string => (count === 1 ? '1 open comment' : `${count} open comments`);

/**
 * The pages on which something waits in the tree's order, the selected one, on which something can be said, and the one that is open,
 * which stays when what waited there is settled.
 */
function usePagesInTalk(): readonly Named[] | undefined {
  const { site, derived, talk, selection, beside } = useWorkbench();
  const open = beside?.kind === 'comments' ? beside.id : null;
  return useMemo(() => {
    if (talk === null) return undefined;
    const { nodes } = derived.outline;
    return nodes
      .filter(({ id }, row) => talk.open[row]! > 0 || id === selection.active || id === open)
      .map(({ id, title }) => ({ id, name: textIn(title, site.settings.language) }));
  }, [site, derived, talk, selection.active, open]);
}

function Pages() {
  const { site, derived, talk } = useWorkbench();
  const threads = useOpenThreads(site.key)?.threads;
  const waiting = useMemo(
    () => (talk === null ? [] : derived.outline.nodes.filter((_, row) => talk.open[row]! > 0)),
    [derived, talk],
  );
  const marks = useMemo<Marks>(
    () => ({
      name: 'Comments',
      words: new Map(waiting.map(({ id }) => [id, waitWords(talk!.open[derived.outline.rowOf.get(id)!]!)])),
    }),
    [waiting, talk, derived],
  );
  useMarkRows(waiting.length > 0 ? marks : null);
  if (talk === null || !threads) return <p className="text-quiet">Loading …</p>;
  if (waiting.length === 0)
    return (
      <p>
        Nothing waits. Select a page and press <kbd>C</kbd>, or select words in its text, to say something about it.
      </p>
    );
  return (
    <div className="flex flex-col gap-3">
      <MarkedRows count={waiting.length}>{pages(waiting.length)} with open comments.</MarkedRows>
      <ListOfSettings label="Pages with comments">
        {waiting.map(({ id, title }) => {
          const first = threads.find(({ page }) => page === id)?.comments.at(-1);
          return (
            <ListedItem
              key={id}
              to={{ kind: 'comments', id }}
              sign={<MessageSquare size={16} aria-hidden />}
              name={textIn(title, site.settings.language)}
              waits={marks.words.get(id)}
              says={first ? `${first.by}: ${first.text.slice(0, 120)}` : 'From guests of the plan'}
            />
          );
        })}
      </ListOfSettings>
    </div>
  );
}

function OnePage({ page }: { readonly page: PageId }) {
  const { site, latest } = useWorkbench();
  // What is said here is said of the selected page, wherever the sheet was opened from.
  useEffect(() => {
    const { derived, selection, select } = latest();
    if (selection.active !== page && derived.outline.rowOf.has(page))
      select({ active: page, chosen: new Set([page]), anchor: page });
  }, [page, latest]);
  return site.nodes.has(page) ? <PageTalk page={page} isAlone /> : <p>The page is no longer there.</p>;
}
