import { Eraser } from 'lucide-react';
import type { PageId } from '#core/model/ids.ts';
import { childrenOf } from '#core/model/site.ts';
import type { PracticePages } from '#core/practice/practice-pages.ts';
import { type Edit, type SiteStore, newPageId } from '../api/site-store.ts';
import { Button } from '../ui/button.tsx';
import { alsoLater } from '../ui/later.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { toast } from '../ui/toast.ts';

const apply = (store: SiteStore, { operations, contents }: PracticePages): string | null =>
  store.apply(operations as Edit[], [...contents]);

const exercises = () => import('#core/practice/practice-pages.ts');
alsoLater(exercises);

/** Does something with the exercises; where they cannot be fetched it says so. */
const withExercises = (work: (of: Awaited<ReturnType<typeof exercises>>) => void): void =>
  void exercises().then(work, () =>
    toast.error('The exercises could not be fetched. The connection may be gone, or Spur was updated meanwhile.'),
  );

/** Gives the site a place to practise, at the end of the tree. */
export const addPractice = (store: SiteStore): void =>
  withExercises(({ practicePages }) => {
    const { language } = store.getShown().site.settings;
    if (apply(store, practicePages(language, { parent: null }, newPageId)) === null)
      toast.success('The practice page stands at the end of the tree.');
  });

/** What can be done with the practice page as a whole: clear it, or go without one. */
export function PracticeActions({ page }: { readonly page: PageId }) {
  const { site, store, may, run } = useWorkbench();
  if (!may('shape', page)) return null;
  const clear = () =>
    withExercises(({ clearedPractice }) => {
      const cleared = clearedPractice(site.settings.language, page, childrenOf(site, page), newPageId);
      if (apply(store, cleared) === null)
        toast('The practice page is as it was at the beginning.', {
          action: { label: 'Undo', onClick: () => run('undo') },
        });
    });
  return (
    <p className="mt-2 flex flex-wrap gap-2">
      <Button onClick={clear}>
        <Eraser size={15} aria-hidden /> Clear the practice page
      </Button>
      {may('everything', null) && (
        <Button look="quiet" onClick={() => void store.apply([{ name: 'practice.set', page: null }])}>
          Make it an ordinary page
        </Button>
      )}
    </p>
  );
}
