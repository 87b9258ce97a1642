import { ChevronUp, X } from 'lucide-react';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { MAX_CHOSEN_PAGES } from '#core/sections/page-list.ts';
import { IconButton } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageField } from '../page-field.tsx';

/** Pages that are chosen one by one, in an order of their own. */
export function ChosenPages({
  chosen,
  onSet,
}: {
  readonly chosen: readonly PageId[];
  readonly onSet: (chosen: PageId[]) => void;
}) {
  const { site, derived } = useWorkbench();
  const titleOf = (page: PageId): string => {
    const node = maybeNodeAt(site, page);
    return node ? textIn(node.title, site.settings.language) : 'A page that was removed';
  };
  return (
    <div className="flex flex-col gap-1">
      <ol aria-label="Chosen pages" className="flex flex-col gap-1 pl-0!">
        {chosen.map((page, at) => (
          <li key={page} className="flex items-center gap-1 rounded-md bg-sunken pl-2">
            <span className="min-w-0 flex-1 truncate">{titleOf(page)}</span>
            <IconButton
              name={`Move ${titleOf(page)} up`}
              disabled={at === 0}
              onClick={() => onSet([...chosen.slice(0, at - 1), page, chosen[at - 1]!, ...chosen.slice(at + 1)])}
            >
              <ChevronUp size={15} aria-hidden />
            </IconButton>
            <IconButton name={`Take out ${titleOf(page)}`} onClick={() => onSet(chosen.filter((one) => one !== page))}>
              <X size={15} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ol>
      {chosen.length < MAX_CHOSEN_PAGES && (
        <PageField
          label="Add a page"
          value=""
          isOffered={(row, page) => derived.outline.nodes[row]!.type === 'page' && !chosen.includes(page)}
          onChoose={(page) => onSet([...chosen, page as PageId])}
        />
      )}
    </div>
  );
}
