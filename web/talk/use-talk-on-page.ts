import { useMemo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { About } from '#core/talk/thread.ts';
import { usePageThreads } from '../api/talk.ts';
import type { TalkedAbout } from '../fields/talk/talked-about.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { beginComment, showThread } from './begun-comment.ts';

/** What is said about parts of a page's text. @param isOnDesk whether the comments have to be opened beside the page first */
export function useTalkOnPage(page: PageId, isOnDesk: boolean) {
  const { site, may, past, setBeside } = useWorkbench();
  const threads = usePageThreads(site.key, past === null && may('read', page) ? page : null);
  const mayComment = past === null && may('comment', page);
  return useMemo(() => {
    const open = () => isOnDesk && setBeside({ kind: 'comments', id: page });
    return {
      said: (threads ?? [])
        .filter(({ about, settledBy }) => settledBy === null && about !== null && !('lens' in about))
        .map(({ id, about, comments }): TalkedAbout => {
          const { by, text } = comments.at(-1)!;
          return { thread: id, about, words: `${by}: ${text.slice(0, 200)}` };
        }),
      onShow: (thread: string) => {
        open();
        showThread(page, thread);
      },
      onBegin: mayComment
        ? (about: About) => {
            open();
            beginComment(page, about);
          }
        : null,
    };
  }, [threads, mayComment, isOnDesk, page, setBeside]);
}
