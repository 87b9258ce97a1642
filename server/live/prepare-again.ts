import { setImmediate as nextTurn } from 'node:timers/promises';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Asking } from './asking.ts';
import { decoded } from './leads.ts';
import { type LiveView, isAnswered, pathOf } from './live-view.ts';
import { isListTouched } from './page-lists.ts';
import type { ReadyAnswer } from './ready-answer.ts';
import type { VisitorClass } from './visitor-classes.ts';

/** So many texts are read at once, and so many pages are made between two looks at what is asked for. */
const TEXTS_AT_ONCE = 100;
const PAGES_AT_ONCE = 2;

/** How pages are made of the site as it is after a release. */
interface Making {
  /** The pages that the release has touched; null where it can be any. */
  readonly affected: ReadonlySet<PageId> | null;
  /** By `performance.now`: what is not made then is made when it is asked for. */
  readonly end: number;
  readonly now: () => number;
  readonly classOf: (asking: Asking) => VisitorClass;
  readonly textsOf: (view: LiveView, contents: readonly ContentId[]) => Promise<ReadonlyMap<string, string>>;
  readonly pageOf: (
    of: VisitorClass,
    row: number,
    rest: string,
    texts: ReadonlyMap<string, string>,
  ) => Promise<ReadyAnswer>;
}

/** Makes ready again what classes of visitors had asked for before a release, a few pages at a time. */
export async function prepareAgain(classes: readonly VisitorClass[], making: Making): Promise<void> {
  // One at a time: the other core is for those who are served meanwhile.
  let packing = Promise.resolve();
  for (const was of classes) {
    const of = making.classOf(was.asking);
    const wanted = takeOver(was, of, making);
    for (let at = 0; at < wanted.length; at += TEXTS_AT_ONCE) {
      const some = wanted.slice(at, at + TEXTS_AT_ONCE);
      const texts = await making.textsOf(
        of.view,
        some.flatMap(({ row }) => of.view.derived.outline.nodes[row]!.content ?? []),
      );
      for (const [index, { path, rest, row, answer }] of some.entries()) {
        if (performance.now() > making.end) return packing;
        const page = await making.pageOf(of, row, rest, texts);
        of.keep(path, page);
        await packing;
        packing = page.prepareLike(answer);
        if (index % PAGES_AT_ONCE === 0) await nextTurn();
      }
    }
  }
  await packing;
}

/** Keeps the answers that are as before, and gives the pages that are to be made anew. */
function takeOver(was: VisitorClass, of: VisitorClass, { affected, now }: Making) {
  const { place, derived } = of.view;
  const { outline, addresses, rowAt } = derived;
  // What was made before the clock turned a page is not kept.
  const touched = was.view.until > now() ? affected : null;
  const touchedPaths =
    touched && new Set([...touched].map((id) => pathOf(place, addresses[outline.rowOf.get(id)!] ?? '')));
  return [...was.allReady()].flatMap(([path, answer]) => {
    if (!answer.isPage || of.ready(path) !== undefined) return [];
    const isTouched = touchedPaths === null || touchedPaths.has(path) || answer.until <= now();
    if (!isTouched && !answer.lists.some((list) => isListTouched(list, of.view, touched!))) {
      of.keep(path, answer);
      return [];
    }
    const rest = path.slice(place.base.length);
    const row = rowAt.get(decoded(rest) ?? '');
    return row !== undefined && isAnswered(of.view, row) ? [{ path, rest, row, answer }] : [];
  });
}
