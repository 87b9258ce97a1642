import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { ancestorsOf } from '#core/model/site.ts';
import { maySomewhere } from '#core/people/powers.ts';
import { textIn } from '#core/model/texts.ts';
import { wordsOfFault } from '../api/client.ts';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { toast } from '../ui/toast.ts';

/** How many of the pages that are new since are named. */
const MAX_NAMED = 3;

/** Says that the past is looked at, and how it differs from now. It shows only then. */
export function PastBar() {
  const { past, shown, powers, store, lookAt, select, setOpen, focusTree, run } = useWorkbench();
  const mayEdit = maySomewhere(powers, 'shape');
  const [isWorking, setWorking] = useState(false);
  if (!past) return null;
  const { earlier, added } = past.comparison;
  const names = added
    .slice(0, MAX_NAMED)
    .map((id) => `‘${textIn(shown.site.nodes.get(id)!.title, shown.site.settings.language)}’`);
  const goBack = async () => {
    setWorking(true);
    try {
      await store.goBack(past.revision);
      lookAt(null);
      toast('The draft is back to how it was then.', { action: { label: 'Undo', onClick: () => run('undo') } });
    } catch (fault) {
      toast.error(wordsOfFault(fault));
    } finally {
      setWorking(false);
    }
  };
  const show = () => {
    const marked = [...earlier.keys()];
    for (const id of marked) for (const above of ancestorsOf(past.site, id)) setOpen(above.id, true);
    select({ active: marked[0]!, chosen: new Set(marked), anchor: marked[0]! });
    focusTree();
  };
  const differs = earlier.size + added.length > 0;
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-attention-soft px-4 py-1 text-small">
      <p role="status" className="min-w-40 flex-1">
        <span className="font-semibold text-attention">The tree as it was</span>
        {'. '}
        {differs
          ? [
              earlier.size > 0 &&
                `${pages(earlier.size)} ${earlier.size === 1 ? 'has' : 'have'} changed since, marked in the tree`,
              added.length > 0 &&
                `${pages(added.length)} new since: ${names.join(', ')}${added.length > MAX_NAMED ? ' and more' : ''}`,
            ]
              .filter(Boolean)
              .join('; ') + '.'
          : 'Nothing has changed since.'}
      </p>
      {earlier.size > 0 && (
        <Button look="quiet" isTight onClick={show}>
          Show {earlier.size === 1 ? 'it' : 'them'}
        </Button>
      )}
      {mayEdit && differs && (
        <Button disabled={isWorking} onClick={() => void goBack()}>
          <Undo2 size={15} aria-hidden /> Go back to this
        </Button>
      )}
      <Button look="main" onClick={() => lookAt(null)}>
        Back to now
      </Button>
    </div>
  );
}
