import { useMemo } from 'react';
import { useKept } from '../fields/use-kept.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useLookedAt } from '../workbench/use-looked-at.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { ListOfSettings, ListedItem } from './listed-item.tsx';
import type { SettingsKey } from './settings-keys.ts';
import type { ListKind, Named } from './settings-kind.ts';

interface ListProps {
  readonly of: SettingsKey;
  readonly kind: ListKind;
}

/** All settings of a kind, each with what it touches and what waits, and a field for another one. */
export function SettingsList({ of, kind, items }: ListProps & { readonly items: readonly Named[] }) {
  const { site, derived, mayEdit } = useWorkbench();
  const at = useLookedAt();
  const says = useMemo(() => kind.says(site, derived, at), [kind, site, derived, at]);
  const { Sign, ForAll } = kind;
  return (
    <div className="flex flex-col gap-4">
      {items.length > 0 && (
        <ListOfSettings>
          {items.map(({ id, name }) => (
            <ListedItem
              key={id}
              to={{ kind: of, id }}
              sign={<Sign size={16} aria-hidden />}
              name={name}
              {...says(id)}
              isGiven={mayEdit && Boolean(kind.give)}
            />
          ))}
        </ListOfSettings>
      )}
      {mayEdit && <NewOne of={of} kind={kind} isFirst={items.length === 0} />}
      {ForAll && (
        <fieldset disabled={!mayEdit} className="min-w-0 border-t border-rule pt-4">
          <ForAll />
        </fieldset>
      )}
    </div>
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
