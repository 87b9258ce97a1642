import { ArrowDownToDot, Trash2 } from 'lucide-react';
import { textIn } from '#core/model/texts.ts';
import { nodeAt } from '#core/model/site.ts';
import { DraftField } from '../fields/draft-field.tsx';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { SETTINGS } from './all-settings.ts';
import type { SettingsKey } from './settings-keys.ts';
import type { Listed } from './settings-kind.ts';
import { selectNextMarked } from './next-marked.ts';

/** One setting: what it touches in the tree, what can be given it, and its fields. */
export function OneSetting({
  of,
  item,
  onGone,
}: {
  readonly of: SettingsKey;
  readonly item: Listed;
  readonly onGone: () => void;
}) {
  const { store, mayEdit } = useWorkbench();
  const { one, longest, nameLabel = 'Name', rename, remove, Fields } = SETTINGS[of];
  return (
    <div className="flex flex-col gap-4">
      <TouchedRows item={item} />
      <GiveToSelected of={of} item={item} />
      <fieldset disabled={!mayEdit} className="flex flex-col gap-3">
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

/** How many rows of the tree are marked, and the ways to them. */
function TouchedRows({ item }: { readonly item: Listed }) {
  const { openSetting, isOnlyTouched, setOnlyTouched, latest } = useWorkbench();
  const touched = openSetting?.item.id === item.id ? openSetting.touched : null;
  if (touched === null) return null;
  const byItself = [...touched.values()].filter((through) => through === 'itself').length;
  return (
    <section aria-label="In the tree" className="rounded-md border border-rule bg-raised px-3 py-2">
      <p role="status">
        {touched.size === 0 ? (
          'It touches no page.'
        ) : (
          <>
            <span className="font-medium">{pages(touched.size)}</span> marked in the tree
            {byItself > 0 && byItself < touched.size && (
              <span className="text-quiet">
                : {byItself} by {byItself === 1 ? 'itself' : 'themselves'}, {touched.size - byItself} through others
              </span>
            )}
          </>
        )}
      </p>
      {(touched.size > 0 || isOnlyTouched) && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <Button
            isTight
            disabled={touched.size === 0}
            onClick={() => selectNextMarked(latest())}
            title="The next marked row (G in the tree)"
          >
            <ArrowDownToDot size={15} aria-hidden /> Next one
          </Button>
          <label className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={isOnlyTouched}
              onChange={(event) => setOnlyTouched(event.target.checked)}
            />
            Only these
          </label>
        </div>
      )}
    </section>
  );
}

/** Gives it to the selected pages; what that changes shows in the trail strip before. */
function GiveToSelected({ of, item }: { readonly of: SettingsKey; readonly item: Listed }) {
  const { site, store, chosen, mayEdit } = useWorkbench();
  const consider = usePreview();
  const { give, one } = SETTINGS[of];
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
      title={edits.length === 0 ? `It names this ${one} already` : undefined}
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
