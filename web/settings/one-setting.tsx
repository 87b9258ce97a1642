import { Trash2 } from 'lucide-react';
import { textIn } from '#core/model/texts.ts';
import { nodeAt } from '#core/model/site.ts';
import { DraftField } from '../fields/draft-field.tsx';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { MarkedRows } from './marked-rows.tsx';
import type { ListKind, Named } from './settings-kind.ts';

/** One setting: what it touches in the tree, what can be given it, and its fields. */
export function OneSetting({
  kind,
  item,
  onGone,
}: {
  readonly kind: ListKind;
  readonly item: Named;
  readonly onGone: () => void;
}) {
  const { store, mayEdit } = useWorkbench();
  const { one, longest, nameLabel = 'Name', rename, remove, Fields } = kind;
  return (
    <div className="flex flex-col gap-4">
      <TouchedRows item={item} />
      <GiveToSelected kind={kind} item={item} />
      <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-3">
        <DraftField
          label={nameLabel}
          saved={item.name}
          longest={longest}
          onSave={(name) => name.trim() !== '' && store.apply([rename(item.id, name)])}
        />
        <Fields id={item.id} />
      </fieldset>
      {mayEdit && (
        <div className="border-t border-rule pt-3">
          <Button
            look="quiet"
            className="-ml-2"
            onClick={() => {
              if (store.apply([remove(item.id)]) === null) onGone();
            }}
          >
            <Trash2 size={15} aria-hidden /> Remove the {one} ‘{item.name}’
          </Button>
        </div>
      )}
    </div>
  );
}

/** How many rows of the tree are marked, and why. */
function TouchedRows({ item }: { readonly item: Named }) {
  const { openSetting } = useWorkbench();
  const touched = openSetting?.item.id === item.id ? openSetting.touched : null;
  if (touched === null) return null;
  const reasons = [...touched.values()];
  const openToAll = reasons.filter((through) => through === 'everyone').length;
  const byItself = reasons.filter((through) => through === 'itself').length;
  const parts = [
    openToAll > 0 && `${openToAll} open to everyone`,
    byItself > 0 && `${byItself} by ${byItself === 1 ? 'itself' : 'themselves'}`,
    `${touched.size - openToAll - byItself} through others`,
  ].filter((words) => words !== false && !words.startsWith('0 '));
  return (
    <MarkedRows count={touched.size}>
      {touched.size === 0 ? (
        'It touches no page.'
      ) : (
        <>
          <span className="font-medium">{pages(touched.size)}</span> marked in the tree
          {parts.length > 1 && <span className="text-quiet">: {parts.join(', ')}</span>}
        </>
      )}
    </MarkedRows>
  );
}

/** Gives it to the selected pages; what that changes shows in the trail strip before. */
function GiveToSelected({ kind, item }: { readonly kind: ListKind; readonly item: Named }) {
  const { site, store, chosen, mayEdit } = useWorkbench();
  const consider = usePreview();
  const { give, one } = kind;
  if (!give || !mayEdit || chosen.length === 0) return null;
  const edits = give(site, chosen, item.id);
  const show = () => consider(edits.length > 0 ? edits : null);
  const hide = () => consider(null);
  const whom =
    chosen.length === 1
      ? `‘${textIn(nodeAt(site, chosen[0]!).title, site.settings.language)}’`
      : `these ${chosen.length} pages`;
  return (
    <Button
      className="max-w-full self-start"
      disabled={edits.length === 0}
      title={edits.length === 0 ? `It has this ${one} already, or cannot have it` : undefined}
      onMouseEnter={show}
      onMouseLeave={hide}
      onFocus={show}
      onBlur={hide}
      onClick={() => {
        hide();
        store.apply(edits);
      }}
    >
      <span className="truncate">
        Give {whom} this {one}
      </span>
    </Button>
  );
}
