import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { detailOf, valueAs } from '#core/fields/values.ts';
import type { Filter } from '#core/derive/filters.ts';
import { type LabelId, ruleOf } from '#core/model/access.ts';
import { type FieldTypeName, type KindField, MAX_DETAIL_LENGTH } from '#core/model/kind-field.ts';
import { type PageLabel, isKind, kindAmong } from '#core/model/page-label.ts';
import { textIn } from '#core/model/texts.ts';
import { fieldContextOfRows } from '../fields/details/use-field-context.ts';
import { faultOf } from '../fields/details/typed-field.tsx';
import { ChoiceCell, EntryCell } from './cells.tsx';
import type { CellContext, Column, Plain } from './columns.tsx';

const NONE: readonly Column[] = Object.freeze([]);
const made = new WeakMap<readonly PageLabel[], Map<string, readonly Column[]>>();

/**
 * A column for each field of a kind, where the tree is filtered by that kind alone. The same list while the labels of the site are the
 * same, so that an edit does not draw every row anew.
 */
export function detailColumns(labels: readonly PageLabel[], filter: Filter): readonly Column[] {
  const asked = filter.kind ?? [];
  const kind = asked.length === 1 ? labels.find(({ id }) => id === asked[0]) : undefined;
  if (!kind || !isKind(kind) || !kind.fields) return NONE;
  let ofLabels = made.get(labels);
  if (!ofLabels) made.set(labels, (ofLabels = new Map()));
  let columns = ofLabels.get(kind.id);
  if (!columns) {
    columns = kind.fields.filter(({ isRemoved }) => !isRemoved).map((field) => detailColumn(kind.id, field));
    ofLabels.set(kind.id, columns);
  }
  return columns;
}

/** How wide columns are at first, in pixels; all others as the last one. */
const WIDTHS: Readonly<Partial<Record<FieldTypeName, number>>> = {
  number: 90,
  money: 96,
  yesNo: 76,
  day: 130,
  moment: 170,
  period: 216,
  telephone: 140,
};
const WIDTH = 160;

function detailColumn(kind: LabelId, field: KindField): Column {
  return {
    key: `field.${field.id}`,
    edits: 'write',
    name: field.name,
    width: WIDTHS[field.type] ?? WIDTH,
    isMinor: true,
    values: ({ site, derived }, row): readonly Plain[] => {
      const { type, access, details } = derived.outline.nodes[row]!;
      if (type !== 'page' || kindAmong(ruleOf({ access }).labels, site.settings.labels)?.id !== kind) return [false];
      const context = fieldContextOfRows(site);
      const kept = details?.[field.id];
      const own = kept === undefined ? null : valueAs(field, kept, context);
      const shown = detailOf(details, field, context);
      const words = shown === null ? '' : FIELD_TYPE[field.type].words(shown, field, context);
      return [
        true,
        own,
        field.type === 'file' && shown !== null ? 'A file' : words,
        kept !== undefined && own === null,
        own === null ? '' : FIELD_TYPE[field.type].written(own, field, context),
      ];
    },
    cell: ([isOfKind, own, words, isUnread, written], context) =>
      isOfKind === true && (
        <DetailCell
          field={field}
          own={own as string | null}
          words={words as string}
          isUnread={isUnread === true}
          written={written as string}
          context={context}
        />
      ),
  };
}

/** What is more than a line is filled in beside the tree. */
const OF_SEVERAL_LINES: ReadonlySet<FieldTypeName> = new Set<FieldTypeName>(['file', 'longText', 'address', 'repeats']);

function DetailCell({
  field,
  own,
  words,
  isUnread,
  written,
  context,
}: {
  readonly field: KindField;
  /** What the page says itself. */
  readonly own: string | null;
  /** What it says, itself or since nothing else is said, for reading. */
  readonly words: string;
  /** Whether it says something that the field cannot hold since its type was changed. */
  readonly isUnread: boolean;
  /** What the page says itself, as it is typed. */
  readonly written: string;
  readonly context: CellContext;
}) {
  const isMissing = field.isRequired && words === '';
  const said = isUnread ? 'Does not fit' : isMissing ? 'Missing' : words;
  const look = isUnread || isMissing ? 'text-attention' : own === null ? 'text-quiet' : '';
  const set = (value: string | null) => ({ details: { [field.id]: value } });
  if (OF_SEVERAL_LINES.has(field.type))
    return (
      <span title={said} className={`truncate ${look}`}>
        {said}
      </span>
    );
  if (field.type === 'yesNo' || (field.type === 'choice' && !field.isSeveral))
    return (
      <ChoiceCell
        field={field.name}
        words={said === '' ? '–' : said}
        look={look}
        label={`${field.name} of ${context.title}`}
        choices={choicesOf(field).map(({ value, name }) => ({
          words: name,
          isChosen: value === own,
          fields: set(value),
        }))}
        context={context}
      />
    );
  const now = () => fieldContextOfRows(context.latest().site);
  const type = FIELD_TYPE[field.type];
  return (
    <EntryCell
      field={field.name}
      value={written}
      words={said}
      type="text"
      look={look}
      longest={MAX_DETAIL_LENGTH}
      {...(field.type === 'pages' && !field.isSeveral && { suggestions: () => titlesOf(field, context) })}
      faultOf={(text) => (text.trim() === '' || type.read(text, field, now()) !== undefined ? null : faultOf(field))}
      fieldsOf={(text) => set(text.trim() === '' ? null : (type.read(text, field, now()) ?? null))}
      context={context}
    />
  );
}

const choicesOf = (field: KindField): readonly { readonly value: string | null; readonly name: string }[] => [
  ...(field.type === 'yesNo'
    ? [
        { value: 'yes', name: 'Yes' },
        { value: 'no', name: 'No' },
      ]
    : field.choices.map(({ id, name }) => ({ value: id, name }))),
  { value: null, name: 'Not set' },
];

/** The titles of the pages that can be chosen. */
function titlesOf({ of }: KindField, { latest }: CellContext): string[] {
  const { derived, site } = latest();
  return derived.outline.nodes
    .filter(({ type, access }) => type === 'page' && (of === null || ruleOf({ access }).labels.includes(of)))
    .map(({ title }) => textIn(title, site.settings.language));
}
