import { entryIn } from '#core/model/arranged-entries.ts';
import { onArranged, takeOut } from '#core/arrange/arrange-entries.ts';
import { arrangedNow } from '#core/derive/menu-merge.ts';
import { pageOfTarget } from '#core/derive/menu.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { type EntryId, MAX_ENTRY_LABEL_LENGTH, type Menu, NO_EXCEPTION } from '#core/model/menu.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { Edit } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { Button } from '../../ui/button.tsx';
import { Radios, Tick } from '../../ui/field.tsx';
import { OWN_PLACE_WORDS } from '../../tree/words.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { entryName } from './menu-reasons.ts';

type Fields = Extract<Operation, { name: 'entry.set' }>['fields'];

/** The entry that is looked at: in what it is otherwise than its page. */
export function EntryFields({
  menu,
  entry,
  onClose,
}: {
  readonly menu: Menu;
  readonly entry: EntryId;
  readonly onClose: () => void;
}) {
  const { site, store } = useWorkbench();
  const { language, audiences } = site.settings;
  const arranged = menu.isByHand ? entryIn(arrangedNow(site, menu).entries, entry) : undefined;
  const extra = menu.isByHand ? undefined : menu.extras.find(({ id }) => id === entry);
  const exception = menu.exceptions.find(({ page }) => (page as string) === entry) ?? NO_EXCEPTION;
  if (menu.isByHand && !arranged) return null;
  const page = extra || arranged ? pageOfTarget((extra ?? arranged)!.target) : (entry as string as PageId);
  const node = page === null ? undefined : maybeNodeAt(site, page);
  const own = arranged ?? extra ?? exception;
  const target = (arranged ?? extra)?.target ?? null;
  const apply = (operations: readonly Operation[]) => store.apply(onArranged(site, menu, operations) as Edit[]);
  const set = (fields: Fields) => apply([{ name: 'entry.set', menu: menu.id, entry, fields }]);
  const pin = extra ? extra.pin : exception.pin;
  const { order } = menu;
  return (
    <section aria-label="Entry" className="flex flex-col gap-3 rounded-md border border-rule px-3 py-3">
      <p className="font-medium">The entry ‘{entryName(site, menu, entry)}’</p>
      <DraftField
        label={page === null ? 'What it says' : 'Label in this menu'}
        saved={textIn(own.label, language)}
        placeholder={node ? textIn(node.label, language) || textIn(node.title, language) : undefined}
        longest={MAX_ENTRY_LABEL_LENGTH}
        hint={page === null ? undefined : 'For this menu only. Leave empty to use the page’s label.'}
        onSave={(text) => (page !== null || text.trim() !== '') && set({ label: { [language]: text } })}
      />
      {target !== null && 'url' in target && (
        <DraftField
          label="Outside address"
          saved={target.url}
          longest={2000}
          hint="Starts with https://, mailto: or tel:"
          onSave={(url) => set({ target: { url: url.trim() } })}
        />
      )}
      {!menu.isByHand && (
        <Radios
          legend="Its place"
          value={pin ?? 'tree'}
          choices={[
            ...(extra ? [] : [{ value: 'tree' as const, words: OWN_PLACE_WORDS[order] }]),
            { value: 'first', words: 'Before the others' },
            { value: 'last', words: 'After the others' },
          ]}
          onChoose={(place) => set({ pin: place === 'tree' ? null : place })}
        />
      )}
      {audiences.length > 0 && (
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 text-small font-medium">Shows to</legend>
          <Tick
            label="Everyone who can open where it leads"
            checked={own.only === null}
            onChange={() => own.only !== null && set({ only: null })}
          />
          {audiences.map(({ id, name }) => (
            <Tick
              key={id}
              label={`${name} only`}
              checked={own.only?.includes(id) === true}
              onChange={() => set({ only: toggled(own.only, id) })}
            />
          ))}
        </fieldset>
      )}
      <div className="flex gap-2">
        {menu.isByHand || extra ? (
          <Button
            onClick={() => {
              const edits = menu.isByHand
                ? takeOut(site, menu, entry)
                : [{ name: 'entry.remove' as const, menu: menu.id, entry }];
              if (store.apply(edits as Edit[]) === null) onClose();
            }}
          >
            Remove the entry
          </Button>
        ) : (
          <Button onClick={() => set({ isLeftOut: true }) === null && onClose()}>Leave it out here</Button>
        )}
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}

function toggled(only: readonly AudienceId[] | null, id: AudienceId): AudienceId[] | null {
  const next = only?.includes(id) ? only.filter((one) => one !== id) : [...(only ?? []), id];
  return next.length === 0 ? null : next;
}
