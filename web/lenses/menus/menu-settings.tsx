import { arrangeByHand, followTree } from '#core/arrange/switch-menu.ts';
import type { PageId } from '#core/model/ids.ts';
import { MAX_LEVELS, type Menu, type EntryOrder } from '#core/model/menu.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { Edit } from '../../api/site-store.ts';
import { PageField } from '../../fields/page-field.tsx';
import { Choice, Radios, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { entryName } from './menu-reasons.ts';
import { toast } from '../../ui/toast.ts';

type Fields = Extract<Operation, { name: 'menu.set' }>['fields'];

const AT_TOP = { value: 'site', words: 'At the top of the tree' };
const IN_SECTION = { value: 'section', words: 'In the section that the visitor is in' };

/** How a menu is kept, and what it takes from the tree. */
export function MenuSettings({ menu }: { readonly menu: Menu }) {
  const { site, store, mayEdit, derived } = useWorkbench();
  const set = (fields: Fields) => store.apply([{ name: 'menu.set', menu: menu.id, fields }]);
  const { root, levels, order, withRoot, headings, isByHand, takesSafe } = menu;
  const follow = () => {
    const { operation, unsaid } = followTree(site, menu);
    if (store.apply([operation as Edit]) !== null || unsaid.length === 0) return;
    const names = [...new Set(unsaid.map(({ entry }) => `‘${entryName(site, menu, entry)}’`))];
    toast(
      `It follows the tree. Exceptions cannot express the place of ${names.slice(0, 5).join(', ')}${names.length > 5 ? ` and ${names.length - 5} more` : ''}. Arrange it by hand again to get it back.`,
      { duration: 12_000 },
    );
  };
  return (
    <details className="rounded-md border border-rule">
      <summary className="cursor-pointer px-3 py-2 font-medium">
        How it is kept: {isByHand ? 'arranged by hand' : 'follows the tree'}
      </summary>
      <fieldset disabled={!mayEdit} className="flex flex-col gap-3 border-t border-rule px-3 py-3">
        <Radios
          legend="The menu"
          value={isByHand ? 'by hand' : 'follows'}
          choices={[
            { value: 'follows', words: 'Follows the tree' },
            { value: 'by hand', words: 'Is arranged by hand' },
          ]}
          onChoose={(way) => (way === 'follows' ? follow() : store.apply([arrangeByHand(site, menu) as Edit]))}
        />
        {isByHand && (
          <Tick
            label="Takes safe changes by itself"
            hint="Changes in the tree that conflict with nothing arranged by hand."
            checked={takesSafe}
            onChange={(event) => set({ takesSafe: event.target.checked })}
          />
        )}
        <PageField
          label="Begins"
          value={typeof root === 'object' ? root.page : root}
          others={isByHand ? [AT_TOP] : [AT_TOP, IN_SECTION]}
          isOffered={(row) => derived.outline.nodes[row]!.type !== 'link'}
          wordsOf={(title) => `Below ‘${title}’`}
          onChoose={(value) =>
            set({ root: value === 'site' || value === 'section' ? value : { page: value as PageId } })
          }
        />
        <div className="grid grid-cols-2 gap-3">
          <Choice label="Levels" value={levels} onChange={(event) => set({ levels: Number(event.target.value) })}>
            {Array.from({ length: MAX_LEVELS }, (_, index) => (
              <option key={index} value={index + 1}>
                {index + 1}
              </option>
            ))}
          </Choice>
          <Choice label="Order" value={order} onChange={(event) => set({ order: event.target.value as EntryOrder })}>
            <option value="tree">Tree order</option>
            <option value="alphabet">Alphabetical</option>
            <option value="date">Newest first</option>
          </Choice>
        </div>
        {root !== 'site' && (
          <Tick
            label="Include the page it begins at"
            checked={withRoot}
            onChange={(event) => set({ withRoot: event.target.checked })}
          />
        )}
        <Tick
          label="Headings lead to their first page"
          hint="Otherwise they are plain text."
          checked={headings === 'first page'}
          onChange={(event) => set({ headings: event.target.checked ? 'first page' : 'text' })}
        />
      </fieldset>
    </details>
  );
}
