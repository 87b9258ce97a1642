import { ListFilter, Trash2 } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import { COMMON_FILTERS, type FilterField, isAsking } from '#core/derive/filters.ts';
import { useLatestChanges } from '../api/find.ts';
import { DayField } from '../fields/day-field.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { FILTER_BUTTON } from '../workbench/use-workbench-actions.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { useSavedFilters } from './saved-filters.ts';

/** Opens the filters: those of every lens, those of this one, and the saved ones. */
export function FilterButton() {
  const { filter, lensParts } = useWorkbench();
  const count = Object.keys(filter).length;
  return (
    <Popover
      label="Filters"
      className="flex w-104 flex-col gap-3 p-4"
      trigger={
        <Button id={FILTER_BUTTON} look="quiet" isTight title="Choose which pages show">
          <ListFilter size={16} aria-hidden /> <span className="compact:sr-only">Filter</span>
          {count > 0 && ` (${count})`}
        </Button>
      }
    >
      <Fields fields={lensParts.filters} />
      <Fields fields={COMMON_FILTERS} />
      <Saved />
    </Popover>
  );
}

function Fields({ fields }: { readonly fields: readonly FilterField[] }) {
  return fields.map((field) =>
    field.kind === 'one-of' ? (
      <OneOf key={field.key} field={field} />
    ) : field.kind === 'some' ? (
      <Some key={field.key} field={field} />
    ) : field.kind === 'person' ? (
      <Person key={field.key} field={field} />
    ) : (
      <Day key={field.key} field={field} />
    ),
  );
}

function useField({ key }: FilterField): [readonly string[], (values: readonly string[]) => void] {
  const { filter, setFilter } = useWorkbench();
  return [
    filter[key] ?? [],
    (values) => {
      const others = Object.fromEntries(Object.entries(filter).filter(([name]) => name !== key));
      setFilter(values.length === 0 ? others : { ...others, [key]: values });
    },
  ];
}

function OneOf({ field }: { readonly field: FilterField }) {
  const [chosen, set] = useField(field);
  return (
    <fieldset className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-start">
      <legend className="contents">
        <span className="pt-1 text-small font-medium">{field.name}</span>
      </legend>
      <div className="flex flex-wrap gap-1.5">
        {field.values!.map(({ value, words }) => {
          const isOn = chosen.includes(value);
          return (
            <label
              key={value}
              className={`inline-flex h-7 cursor-pointer items-center gap-1.5 rounded-full border px-2.5 text-small ${isOn ? 'border-accent bg-accent-soft text-accent' : 'border-edge'}`}
            >
              <input
                type="checkbox"
                className="accent-accent"
                checked={isOn}
                onChange={() => set(isOn ? chosen.filter((one) => one !== value) : [...chosen, value])}
              />
              {words}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}

const SELECT = 'h-8 w-full rounded-md border border-edge bg-paper px-2';

/** One of what the site has, such as an owner. */
function Some({ field }: { readonly field: FilterField }) {
  const { site, derived } = useWorkbench();
  return <OneSelected field={field} any="Any" values={field.valuesOf!({ site, derived })} />;
}

function Person({ field }: { readonly field: FilterField }) {
  const { site, shown } = useWorkbench();
  const [[chosen]] = useField(field);
  const changes = useLatestChanges(site.key, shown.revision);
  const names = [...new Set([...(changes?.values() ?? [])].map((one) => one.by))].sort();
  const values = [...new Set([...names, ...(chosen ? [chosen] : [])])].map((name) => ({ value: name, words: name }));
  return <OneSelected field={field} any="Anybody" values={values} />;
}

function OneSelected({
  field,
  any,
  values,
}: {
  readonly field: FilterField;
  readonly any: string;
  readonly values: readonly { readonly value: string; readonly words: string }[];
}) {
  const [[chosen = ''], set] = useField(field);
  return (
    <label className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center">
      <span className="text-small font-medium">{field.name}</span>
      <select
        value={chosen}
        onChange={(event) => set(event.target.value ? [event.target.value] : [])}
        className={SELECT}
      >
        <option value="">{any}</option>
        {values.map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

function Day({ field }: { readonly field: FilterField }) {
  const [[chosen = ''], set] = useField(field);
  return (
    <div className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center">
      <span aria-hidden className="text-small font-medium">
        {field.name}
      </span>
      <DayField isBare label={field.name} value={chosen} onSet={(day) => set(day === '' ? [] : [day])} />
    </div>
  );
}

function Saved() {
  const { query, filter, isFlat, setQuery, setFilter, setFlat } = useWorkbench();
  const [saved, setSaved] = useSavedFilters();
  const [name, setName] = useState('');
  const save = (event: FormEvent) => {
    event.preventDefault();
    const named = name.trim();
    if (named === '') return;
    const kept = saved.filter((one) => one.name !== named);
    setSaved([...kept, { name: named, query, filter: filter as Record<string, string[]>, isFlat }]);
    setName('');
  };
  return (
    <section aria-label="Saved filters" className="border-t border-rule pt-3">
      <h3 className="mb-1 text-small font-medium">Saved filters</h3>
      {saved.length === 0 && (
        <p className="text-small text-quiet">None yet. Choose a filter and save it under a name.</p>
      )}
      <ul>
        {saved.map((one) => (
          <li key={one.name} className="flex items-center">
            <button
              type="button"
              onClick={() => {
                setQuery(one.query);
                setFilter(one.filter);
                setFlat(one.isFlat);
              }}
              className="h-8 min-w-0 flex-1 truncate rounded px-2 text-left hover:bg-accent-soft"
            >
              {one.name}
            </button>
            <IconButton
              name={`Delete the saved filter ‘${one.name}’`}
              onClick={() => setSaved(saved.filter((other) => other.name !== one.name))}
            >
              <Trash2 size={15} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      {isAsking({ query, filter }) && (
        <form onSubmit={save} className="mt-1 flex gap-2">
          <input
            aria-label="Name for this filter"
            placeholder="Name for this filter"
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="h-8 min-w-0 flex-1 rounded-md border border-edge bg-paper px-2"
          />
          <Button type="submit" disabled={name.trim() === ''}>
            Save
          </Button>
        </form>
      )}
    </section>
  );
}
