import { type NodeViewProps, NodeViewWrapper } from '@tiptap/react';
import { labelOf } from '#core/derive/menu.ts';
import { canFilterBy } from '#core/derive/list-part.ts';
import { listedPages } from '#core/derive/page-list.ts';
import { FIELD_TYPE, saysWhen } from '#core/fields/all-types.ts';
import { dateFormat } from '#core/fields/formats.ts';
import type { FieldId, KindField } from '#core/model/kind-field.ts';
import type { LabelId } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { type PageLabel, isKind } from '#core/model/page-label.ts';
import { MAX_FILTERS, type PageListSetting } from '#core/sections/page-list.ts';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { useFieldContext } from '../details/use-field-context.ts';
import { KindOptions } from '../kind-choice.tsx';
import { PageField } from '../page-field.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { ChosenPages } from './chosen-pages.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';
import { ListConditions } from './list-conditions.tsx';

export const PAGE_LIST_PART = editorPart('pageList', WhichPages);

type ListChange = Parameters<SettingsProps<PageListSetting>['set']>[0];

const THIS = { value: 'this', words: 'This page' };

function WhichPages({ attributes, set }: SettingsProps<PageListSetting>) {
  const { site, derived } = useWorkbench();
  const {
    of,
    from,
    chosen,
    kind,
    label,
    look,
    order,
    by,
    isReversed,
    group,
    fields: shown,
    most,
    filters,
    atOnce,
  } = attributes;
  const { labels } = site.settings;
  const fields = fieldsOffered(labels, kind);
  const forVisitors = fields.filter(({ isForVisitors }) => isForVisitors);
  const filterable = forVisitors.filter(({ type }) => canFilterBy(type));
  const plain = labels.filter((one) => !isKind(one));
  return (
    <div className="flex w-full flex-col gap-3">
      <div className="grid gap-2 @md:grid-cols-2 @3xl:grid-cols-4">
        <Choice
          label="Pages"
          value={from}
          onChange={(event) => set({ from: event.target.value as PageListSetting['from'] })}
        >
          <option value="below">Directly below a page</option>
          <option value="branch">Anywhere below a page</option>
          <option value="site">Anywhere in the site</option>
          <option value="chosen">Chosen one by one</option>
        </Choice>
        {(from === 'below' || from === 'branch') && (
          <PageField
            label="Below"
            value={of ?? THIS.value}
            others={[THIS]}
            isOffered={(row) => derived.outline.end[row]! > row + 1}
            onChoose={(next) => set({ of: next === THIS.value ? null : (next as PageId) })}
          />
        )}
        {labels.some(isKind) && (
          <Choice
            label="Of kind"
            value={kind ?? ''}
            onChange={(event) => set(withoutOthers(attributes, labels, (event.target.value || null) as LabelId | null))}
          >
            <option value="">Any</option>
            <KindOptions labels={labels} />
          </Choice>
        )}
        {plain.length > 0 && (
          <Choice
            label="With label"
            value={label ?? ''}
            onChange={(event) => set({ label: (event.target.value || null) as LabelId | null })}
          >
            <option value="">Any</option>
            {plain.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
        )}
      </div>
      {from === 'chosen' && <ChosenPages chosen={chosen} onSet={(next) => set({ chosen: next })} />}
      {fields.length > 0 && (
        <ListConditions fields={fields} conditions={attributes.where} onSet={(where) => set({ where })} />
      )}
      <div className="grid gap-2 @md:grid-cols-2 @3xl:grid-cols-4">
        <Choice
          label="Order"
          value={order === 'field' ? `field ${by ?? ''}` : order}
          onChange={(event) => set(orderOf(event.target.value))}
        >
          <option value="tree">{from === 'chosen' ? 'As they were chosen' : 'Tree order'}</option>
          <option value="alphabet">Alphabetical</option>
          <option value="date">Newest first</option>
          {fields.map(({ id, name }) => (
            <option key={id} value={`field ${id}`}>
              By {name}
            </option>
          ))}
        </Choice>
        <Choice
          label="Look"
          value={look}
          onChange={(event) => set({ look: event.target.value as PageListSetting['look'] })}
        >
          <option value="list">A list with descriptions</option>
          <option value="cards">Cards</option>
          <option value="dates">Dates and titles</option>
          <option value="table">A table</option>
          <option value="month">A calendar month</option>
        </Choice>
        {fields.length > 0 && (
          <Choice
            label="Group by"
            value={group ?? ''}
            onChange={(event) => set({ group: (event.target.value || null) as FieldId | null })}
          >
            <option value="">No groups</option>
            {forVisitors.map(({ id, name, type }) => (
              <option key={id} value={id}>
                {saysWhen(type) ? `Month of ${name}` : name}
              </option>
            ))}
          </Choice>
        )}
        <CountField label="At most" most={200} hint="0 for all." value={most} onSet={(next) => set({ most: next })} />
        <CountField
          label="Entries at a time"
          most={100}
          hint="Links lead to the rest. 0 shows all."
          value={atOnce}
          onSet={(next) => set({ atOnce: next })}
        />
      </div>
      <Tick
        label="Reverse the order"
        checked={isReversed}
        onChange={(event) => set({ isReversed: event.target.checked })}
      />
      {fields.length > 0 && (
        <FieldTicks
          legend="Fields to show"
          fields={forVisitors}
          chosen={shown}
          onSet={(next) => set({ fields: next })}
        />
      )}
      {filterable.length > 0 && (
        <FieldTicks
          legend={`Visitors can filter by (up to ${MAX_FILTERS})`}
          fields={filterable}
          chosen={filters}
          most={MAX_FILTERS}
          onSet={(next) => set({ filters: next })}
        />
      )}
    </div>
  );
}

/** Some of a kind's fields. */
function FieldTicks({
  legend,
  fields,
  chosen,
  most = Infinity,
  onSet,
}: {
  readonly legend: string;
  readonly fields: readonly KindField[];
  readonly chosen: readonly FieldId[];
  readonly most?: number;
  readonly onSet: (chosen: FieldId[]) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">{legend}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {fields.map(({ id, name }) => (
          <label key={id} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={chosen.includes(id)}
              disabled={chosen.length >= most && !chosen.includes(id)}
              onChange={() => onSet(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])}
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** The fields of a kind; those of all kinds where pages of any are listed. */
const fieldsOffered = (labels: readonly PageLabel[], kind: LabelId | null): KindField[] =>
  labels
    .filter((one) => isKind(one) && (kind === null || one.id === kind))
    .flatMap(({ fields = [] }) => fields)
    .filter(({ isRemoved }) => !isRemoved);

/** Another kind, without what was asked of the fields of others. */
function withoutOthers(
  { where, order, by, group, fields, filters }: PageListSetting,
  labels: readonly PageLabel[],
  kind: LabelId | null,
): ListChange {
  const has = new Set<FieldId>(fieldsOffered(labels, kind).map(({ id }) => id));
  return {
    kind,
    where: where.filter(({ field }) => has.has(field)),
    fields: fields.filter((id) => has.has(id)),
    filters: filters.filter((id) => has.has(id)),
    ...(order === 'field' && (by === null || !has.has(by)) && { order: 'tree', by: null }),
    ...(group !== null && !has.has(group) && { group: null }),
  };
}

/** A count of entries, from 0 on. */
function CountField({
  label,
  hint,
  value,
  most,
  onSet,
}: {
  readonly label: string;
  readonly hint: string;
  readonly value: number;
  readonly most: number;
  readonly onSet: (count: number) => void;
}) {
  return (
    <TextField
      label={label}
      type="number"
      min={0}
      max={most}
      hint={hint}
      value={String(value)}
      onChange={(event) => onSet(Math.max(0, Math.min(most, Math.round(Number(event.target.value)) || 0)))}
    />
  );
}

function orderOf(chosen: string): ListChange {
  const [order, by] = chosen.split(' ') as [PageListSetting['order'], FieldId | undefined];
  return { order, by: by ?? null };
}

/** A list of pages in the editor: those that it has now. */
export function PageListView({ node, selected }: NodeViewProps) {
  const { site, derived, selection } = useWorkbench();
  const context = useFieldContext();
  const setting = node.attrs as PageListSetting;
  const page = selection.active;
  const groups = page === null ? [] : listedPages(site, derived, page, setting, context);
  const by = fieldsOffered(site.settings.labels, null).find(({ id }) => id === setting.group);
  const nameOf = (value: string | null): string =>
    value === null || !by
      ? 'Others'
      : saysWhen(by.type)
        ? dateFormat('en', 'month').format(new Date(`${value}-01`))
        : FIELD_TYPE[by.type].words(value, by, context);
  return (
    <NodeViewWrapper
      aria-label="List of pages"
      className={`${OF_THE_DESK} rounded-md border border-dashed px-2 py-1.5 ${selected ? 'border-accent bg-accent-soft' : 'border-edge'}`}
    >
      <p className="text-small text-quiet">List of pages</p>
      {groups.length === 0 && <p className="text-quiet">No page is in it yet.</p>}
      {groups.map(({ value, rows }) => (
        <div key={value ?? ''}>
          {by && <p className="font-medium">{nameOf(value)}</p>}
          <ul>
            {rows.map((row) => (
              <li key={row}>{labelOf(site, derived.outline.nodes[row]!)}</li>
            ))}
          </ul>
        </div>
      ))}
    </NodeViewWrapper>
  );
}
