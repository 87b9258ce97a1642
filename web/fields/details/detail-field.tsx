import { X } from 'lucide-react';
import { useState } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import { FILE_KINDS, type FileId } from '#core/files/file.ts';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { KIND_WORDS } from '#contract/files.ts';
import { useLibrary } from '../../api/files.ts';
import { ChooseFile } from '../../files/choose-file.tsx';
import { kindOf } from '../../files/file-words.ts';
import { Thumbnail } from '../../files/thumbnail.tsx';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice, Radios } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DayField, MomentField } from '../day-field.tsx';
import { PageField } from '../page-field.tsx';
import { RepeatsField } from './repeats-field.tsx';
import { TypedField, faultOf } from './typed-field.tsx';

interface DetailFieldProps {
  readonly field: KindField;
  readonly context: FieldContext;
  /** What the page says itself, in the form in which it is kept; null for nothing. */
  readonly value: string | null;
  /** What it says as long as it says nothing itself; null for nothing. */
  readonly otherwise: string | null;
  readonly onSet: (value: string | null) => void;
}

/** What a page says in one field of its kind, by the field's type. */
export function DetailField(props: DetailFieldProps) {
  const { field, context, value, otherwise, onSet } = props;
  const label = `${field.name}${field.isRequired ? ' (required)' : ''}`;
  const said = otherwise === null ? undefined : FIELD_TYPE[field.type].words(otherwise, field, context);
  const hint = field.help || undefined;
  switch (field.type) {
    case 'day':
      return <DayField label={label} hint={hint} value={value ?? ''} onSet={(day) => onSet(day || null)} />;
    case 'moment':
      return <MomentField label={label} hint={hint} value={value ?? ''} onSet={(moment) => onSet(moment || null)} />;
    case 'period':
      return <PeriodField {...props} label={label} />;
    case 'repeats':
      return <RepeatsField label={label} help={field.help} value={value} onSet={onSet} />;
    case 'yesNo':
      return (
        <div>
          <Radios
            legend={label}
            value={value ?? otherwise ?? ''}
            choices={[
              { value: 'yes', words: 'Yes' },
              { value: 'no', words: 'No' },
              { value: '', words: 'Not set' },
            ]}
            onChoose={(next) => onSet(next === '' ? null : next)}
          />
          {hint && <p className="text-small text-quiet">{hint}</p>}
        </div>
      );
    case 'choice':
      return field.isSeveral ? (
        <SeveralChoices {...props} label={label} />
      ) : (
        <Choice
          label={label}
          hint={hint}
          value={value ?? ''}
          onChange={(event) => onSet(event.target.value === '' ? null : event.target.value)}
        >
          <option value="">{said === undefined ? 'Not set' : `Default: ${said}`}</option>
          {field.choices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
      );
    case 'pages':
      return <PagesField {...props} label={label} />;
    case 'file':
      return <FileOfField {...props} label={label} />;
    default:
      return (
        <TypedField
          field={field}
          context={context}
          label={field.unit === '' || field.type !== 'number' ? label : `${label}, in ${field.unit}`}
          hint={hint}
          value={value}
          placeholder={said}
          onSet={onSet}
        />
      );
  }
}

type Labelled = DetailFieldProps & { readonly label: string };

/** The first and the last day; one without the other is kept here until both are there. */
function PeriodField({ field, label, value, onSet }: Labelled) {
  const [first = '', last = ''] = (value ?? '').split('/');
  const [half, setHalf] = useState<readonly [string, string] | null>(null);
  const [from, until] = half ?? [first, last];
  const set = (nextFrom: string, nextUntil: string) => {
    if (nextFrom === '' && nextUntil === '') {
      setHalf(null);
      onSet(null);
    } else if (nextFrom !== '' && nextUntil !== '' && nextFrom <= nextUntil) {
      setHalf(null);
      onSet(`${nextFrom}/${nextUntil}`);
    } else setHalf([nextFrom, nextUntil]);
  };
  const fault =
    from === '' || until === ''
      ? 'Both days are needed before it is saved.'
      : from > until
        ? faultOf(field)
        : undefined;
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 text-small font-medium">{label}</legend>
      <div className="grid gap-2 @sm:grid-cols-2">
        <DayField
          label="First day"
          value={from}
          fault={half === null ? undefined : fault}
          onSet={(day) => set(day, until)}
        />
        <DayField label="Last day" value={until} onSet={(day) => set(from, day)} />
      </div>
      {field.help !== '' && <p className="text-small text-quiet">{field.help}</p>}
    </fieldset>
  );
}

function SeveralChoices({ field, label, value, onSet }: Labelled) {
  const chosen = new Set(value === null ? [] : value.split(' '));
  const toggle = (id: string) => {
    const next = field.choices.map((one) => one.id).filter((one) => (one === id ? !chosen.has(one) : chosen.has(one)));
    onSet(next.length === 0 ? null : next.join(' '));
  };
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {field.choices.map(({ id, name }) => (
          <label key={id} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={chosen.has(id)}
              onChange={() => toggle(id)}
            />
            {name}
          </label>
        ))}
      </div>
      {field.choices.length === 0 && <p className="text-small text-quiet">The field has no choices yet.</p>}
      {field.help !== '' && <p className="text-small text-quiet">{field.help}</p>}
    </fieldset>
  );
}

/** The pages that are named, each with a way to take it out; and one more. */
function PagesField({ field, label, value, onSet }: Labelled) {
  const { site, derived } = useWorkbench();
  const named = value === null ? [] : (value.split(' ') as PageId[]);
  // A kind that is gone keeps nobody from choosing.
  const kind = site.settings.labels.find(({ id }) => id === field.of);
  const isOffered = (row: number, page: PageId): boolean => {
    const { type, access } = derived.outline.nodes[row]!;
    return type === 'page' && !named.includes(page) && (!kind || ruleOf({ access }).labels.includes(kind.id));
  };
  const set = (pages: readonly PageId[]) => onSet(pages.length === 0 ? null : pages.join(' '));
  const hasList = field.isSeveral && named.length > 0;
  return (
    <div className="flex flex-col gap-1">
      {hasList && <span className="text-small font-medium">{label}</span>}
      {hasList && (
        <ul aria-label={label} className="flex flex-col gap-1">
          {named.map((page) => (
            <li key={page} className="flex items-center gap-1 rounded-md bg-sunken pl-2">
              <span className="min-w-0 flex-1 truncate">{titleIn(derived, page, site.settings.language)}</span>
              <IconButton
                name={`Take out ${titleIn(derived, page, site.settings.language)}`}
                onClick={() => set(named.filter((one) => one !== page))}
              >
                <X size={15} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <PageField
        label={hasList ? `Add another: ${label}` : label}
        isBare={hasList}
        hint={field.help || undefined}
        value={field.isSeveral ? '' : (named[0] ?? '')}
        others={!field.isSeveral && named.length > 0 ? [{ value: 'none', words: 'None' }] : []}
        isOffered={isOffered}
        placeholder={`${hasList ? 'Add another page' : 'Choose a page'}${kind ? `: ${kind.name}` : ''}`}
        onChoose={(next) => set(next === 'none' ? [] : field.isSeveral ? [...named, next as PageId] : [next as PageId])}
      />
    </div>
  );
}

function titleIn({ outline }: Derived, page: PageId, language: string): string {
  const row = outline.rowOf.get(page);
  const title = row === undefined ? undefined : outline.nodes[row]!.title;
  return title?.[language] ?? Object.values(title ?? {})[0] ?? 'A page that was removed';
}

/** The file that is named, with a way to another one or none; or the ways to one. */
function FileOfField({ field, label, value, onSet }: Labelled) {
  const { site } = useWorkbench();
  const library = useLibrary(site.key);
  const file = library?.find(({ id }) => id === value);
  const [kind, setKind] = useState<(typeof FILE_KINDS)[number]>('picture');
  const [isChoosing, setChoosing] = useState(false);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 text-small font-medium">{label}</legend>
      {field.help !== '' && <p className="text-small text-quiet">{field.help}</p>}
      {value !== null && (
        <div className="flex items-center gap-2">
          {file && <Thumbnail site={site.key} file={file} className="size-12 shrink-0" />}
          <span className="min-w-0 flex-1 truncate">
            {file?.name ?? (library ? 'A file that was removed' : 'Looking for it …')}
          </span>
          <Button isTight onClick={() => onSet(null)}>
            Take out
          </Button>
        </div>
      )}
      {isChoosing ? (
        <>
          <Choice
            label="What kind of file"
            value={kind}
            onChange={(event) => setKind(event.target.value as typeof kind)}
          >
            {FILE_KINDS.map((one) => (
              <option key={one} value={one}>
                {KIND_WORDS[one].one}
              </option>
            ))}
          </Choice>
          <ChooseFile
            site={site.key}
            kind={kind}
            onChosen={([chosen]) => {
              setChoosing(false);
              if (chosen) onSet(chosen.id satisfies FileId);
            }}
          />
        </>
      ) : (
        <Button
          isTight
          className="self-start"
          onClick={() => {
            if (file) setKind(kindOf(file));
            setChoosing(true);
          }}
        >
          {value === null ? 'Choose a file…' : 'Another file…'}
        </Button>
      )}
    </fieldset>
  );
}
