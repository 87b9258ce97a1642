import { ChevronRight } from 'lucide-react';
import { useDrag } from '../drag/drag-context.ts';
import { useKept } from '../fields/use-kept.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import type { SettingsKey } from './settings-keys.ts';
import type { ListKind, Listed } from './settings-kind.ts';

interface ListProps {
  readonly of: SettingsKey;
  readonly kind: ListKind;
}

/** All settings of a kind, each with what it touches and what waits, and a field for another one. */
export function SettingsList({ of, kind, listed }: ListProps & { readonly listed: readonly Listed[] }) {
  const { mayEdit } = useWorkbench();
  const { ForAll } = kind;
  return (
    <div className="flex flex-col gap-4">
      {listed.length > 0 && (
        <ul className="divide-y divide-rule rounded-md border border-rule bg-raised">
          {listed.map((one) => (
            <ListedItem key={one.id} of={of} kind={kind} item={one} />
          ))}
        </ul>
      )}
      {mayEdit && <NewOne of={of} kind={kind} isFirst={listed.length === 0} />}
      {ForAll && (
        <fieldset disabled={!mayEdit} className="min-w-0 border-t border-rule pt-4">
          <ForAll />
        </fieldset>
      )}
    </div>
  );
}

function ListedItem({ of, kind, item: { id, name, says, waits } }: ListProps & { readonly item: Listed }) {
  const { setBeside } = useWorkbench();
  const { drag } = useDrag();
  const { Sign, give } = kind;
  const isOver = drag?.giving === id;
  return (
    <li>
      <button
        type="button"
        // Rows of the tree can be dropped here.
        data-give={give ? id : undefined}
        onClick={() => setBeside({ kind: of, id })}
        className={`flex w-full items-center gap-3 px-3 py-2 text-left ${isOver ? 'bg-accent text-on-accent' : drag && give ? 'outline-1 -outline-offset-1 outline-accent outline-dashed' : 'hover:bg-accent-soft'}`}
      >
        <Sign size={16} aria-hidden className={`shrink-0 ${isOver ? '' : 'text-quiet'}`} />
        <span className="min-w-0 flex-1">
          <span className="block font-medium">{name}</span>
          {waits && <span className={`block text-small ${isOver ? '' : 'text-attention'}`}>{waits}</span>}
          {says !== '' && <span className={`block truncate text-small ${isOver ? '' : 'text-quiet'}`}>{says}</span>}
        </span>
        <ChevronRight size={16} aria-hidden className={`shrink-0 ${isOver ? '' : 'text-quiet'}`} />
      </button>
    </li>
  );
}

function NewOne({ of, kind, isFirst }: ListProps & { readonly isFirst: boolean }) {
  const { site, store, setBeside } = useWorkbench();
  const { one, placeholder, longest, add } = kind;
  const [typed, setTyped] = useKept(`${one} ${site.key}`);
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() === '') return;
        const { id, edit } = add(typed);
        if (store.apply([edit]) !== null) return;
        setTyped('');
        setBeside({ kind: of, id });
      }}
    >
      <div className="flex-1">
        <TextField
          label={isFirst ? `The first ${one}` : `Another ${one}`}
          placeholder={placeholder}
          value={typed}
          maxLength={longest}
          onChange={(event) => setTyped(event.target.value)}
        />
      </div>
      <Button type="submit" look="main" disabled={typed.trim() === ''}>
        Add the {one}
      </Button>
    </form>
  );
}
