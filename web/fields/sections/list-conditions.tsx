import { Plus, X } from 'lucide-react';
import { saysWhen } from '#core/fields/all-types.ts';
import type { FieldId, KindField } from '#core/model/kind-field.ts';
import { CONDITION_TESTS, type ListCondition, MAX_CONDITIONS, THIS_PAGE, TODAY } from '#core/sections/page-list.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/field.tsx';
import { DetailField } from '../details/detail-field.tsx';
import { useFieldContext } from '../details/use-field-context.ts';

type Test = ListCondition['test'];
const SIZES: ReadonlySet<KindField['type']> = new Set<KindField['type']>(['number', 'money']);
const FEW: ReadonlySet<KindField['type']> = new Set<KindField['type']>(['choice', 'pages', 'yesNo']);

/** What can be asked of a field of that type. */
const testsOf = ({ type }: KindField): readonly Test[] =>
  CONDITION_TESTS.filter((test) =>
    test === 'from' || test === 'until'
      ? saysWhen(type) || SIZES.has(type)
      : test === 'is' || test === 'is not'
        ? FEW.has(type) || saysWhen(type) || SIZES.has(type) || type === 'text'
        : true,
  );

function testWords(test: Test, { type }: KindField): string {
  if (test === 'from') return SIZES.has(type) ? 'is at least' : 'is on or after';
  if (test === 'until') return SIZES.has(type) ? 'is at most' : 'is on or before';
  if (test === 'is' && (type === 'period' || type === 'repeats')) return 'includes';
  return { is: 'is', 'is not': 'is not', said: 'is filled in', 'not said': 'is empty' }[test];
}

/** What the pages of a list have to say: each condition is a field, a test and a value. All of them have to hold. */
export function ListConditions({
  fields,
  conditions,
  onSet,
}: {
  readonly fields: readonly KindField[];
  readonly conditions: readonly ListCondition[];
  readonly onSet: (conditions: ListCondition[]) => void;
}) {
  const put = (at: number, condition: ListCondition) =>
    onSet(conditions.map((one, index) => (index === at ? condition : one)));
  return (
    <div className="flex flex-col gap-2">
      {conditions.length > 0 && (
        <ol aria-label="Conditions" className="flex flex-col gap-2 pl-0!">
          {conditions.map((condition, at) => (
            <li key={at} className="flex items-end gap-2">
              <OneCondition fields={fields} condition={condition} onSet={(next) => put(at, next)} />
              <IconButton
                name={`Remove condition ${at + 1}`}
                onClick={() => onSet(conditions.filter((_, index) => index !== at))}
              >
                <X size={15} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ol>
      )}
      {conditions.length < MAX_CONDITIONS && (
        <Button look="quiet" isTight className="self-start" onClick={() => onSet([...conditions, firstOf(fields[0]!)])}>
          <Plus size={15} aria-hidden /> Add a condition
        </Button>
      )}
    </div>
  );
}

const firstOf = (field: KindField): ListCondition =>
  saysWhen(field.type) ? { field: field.id, test: 'from', value: TODAY } : { field: field.id, test: 'said', value: '' };

function OneCondition({
  fields,
  condition,
  onSet,
}: {
  readonly fields: readonly KindField[];
  readonly condition: ListCondition;
  readonly onSet: (condition: ListCondition) => void;
}) {
  const context = useFieldContext();
  const field = fields.find(({ id }) => id === condition.field);
  const { test, value } = condition;
  return (
    <div className="grid min-w-0 flex-1 items-end gap-2 @md:grid-cols-3">
      <Choice
        label="Field"
        value={condition.field}
        onChange={(event) => {
          const next = fields.find(({ id }) => id === (event.target.value as FieldId));
          if (next) onSet(firstOf(next));
        }}
      >
        {!field && <option value={condition.field}>A field that was removed</option>}
        {fields.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
      {field && (
        <Choice
          label="Test"
          value={test}
          onChange={(event) => {
            const next = event.target.value as Test;
            const asks = next !== 'said' && next !== 'not said';
            onSet({ ...condition, test: next, value: asks ? value : '' });
          }}
        >
          {testsOf(field).map((one) => (
            <option key={one} value={one}>
              {testWords(one, field)}
            </option>
          ))}
        </Choice>
      )}
      {field && test !== 'said' && test !== 'not said' && (
        <div className="flex flex-col gap-1">
          {(saysWhen(field.type) || field.type === 'pages') && (
            <Choice
              label="Compare with"
              value={value === TODAY || value === THIS_PAGE ? value : 'other'}
              onChange={(event) =>
                onSet({ ...condition, value: event.target.value === 'other' ? '' : event.target.value })
              }
            >
              {saysWhen(field.type) && <option value={TODAY}>Today</option>}
              {field.type === 'pages' && <option value={THIS_PAGE}>This page</option>}
              <option value="other">{saysWhen(field.type) ? 'A day of your choice' : 'Another page'}</option>
            </Choice>
          )}
          {value !== TODAY && value !== THIS_PAGE && (
            <DetailField
              field={{ ...asAsked(field), name: 'Value', help: '', isRequired: false, isSeveral: false }}
              context={context}
              value={value === '' ? null : value}
              otherwise={null}
              onSet={(next) => onSet({ ...condition, value: next ?? '' })}
            />
          )}
        </div>
      )}
    </div>
  );
}

/** Periods and moments are compared with a day. */
const asAsked = (field: KindField): KindField =>
  field.type === 'period' || field.type === 'moment' || field.type === 'repeats' ? { ...field, type: 'day' } : field;
