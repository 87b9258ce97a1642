import type { LabelId } from '../model/access.ts';
import type { PageId } from '../model/ids.ts';
import { type FieldId, type FieldSettings, type KindField, NO_FIELD_SETTINGS } from '../model/kind-field.ts';
import type { PageLabel } from '../model/page-label.ts';
import {
  type FormField,
  type FormSettings,
  NO_FORM_FIELD_SETTINGS,
  NO_FORM_SETTINGS,
  type SiteForm,
} from '../model/site-form.ts';
import type { StarterField, StarterForm, StarterFormField } from './starter-file-fields.ts';

/** What fields name of a site, by name. */
export interface NamesOfFields {
  readonly kind: (name: string) => LabelId;
  readonly page: (title: string) => PageId | null;
  readonly newField: () => FieldId;
}

/** Choices by the order in which they are named. */
const choicesNamed = (names: readonly string[] = []) => names.map((name, at) => ({ id: `c${at + 1}`, name }));

/** What is set of a field of a kind, as a starter says it. */
export const fieldSettingsOf = (field: StarterField, names: NamesOfFields): Partial<FieldSettings> => ({
  ...allBut(field, 'name', 'choices', 'of'),
  ...(field.choices && { choices: choicesNamed(field.choices) }),
  ...(field.of !== undefined && { of: names.kind(field.of) }),
});

/** What is set of a form, as a starter says it; pages that the starter does not bring are named by nothing. */
export function formSettingsOf(form: StarterForm, names: NamesOfFields): Partial<FormSettings> {
  const made: FormField[] = [];
  for (const { choices, of, policy, shownIf, ...one } of form.fields) {
    const before = made.find((other) => shownIf && isSame(other.name, shownIf.field));
    made.push({
      ...NO_FORM_FIELD_SETTINGS,
      ...one,
      id: names.newField(),
      choices: choicesNamed(choices),
      of: of === undefined ? null : names.kind(of),
      policy: policy === undefined ? null : names.page(policy),
      shownIf:
        shownIf && before
          ? {
              field: before.id,
              test: shownIf.test,
              value: before.choices.find((choice) => isSame(choice.name, shownIf.value))?.id ?? shownIf.value,
            }
          : null,
    });
  }
  const leadsTo = form.leadsTo === undefined ? null : names.page(form.leadsTo);
  return { ...allBut(form, 'name', 'fields', 'leadsTo'), fields: made, leadsTo };
}

/** How a site names what fields name by ids; undefined for what is not there. */
interface NamesOfIds {
  readonly labels: readonly PageLabel[];
  readonly titleOf: (page: PageId) => string | undefined;
}

/** The fields of a kind as a starter says them, without those that were removed. */
export const starterFieldsOf = (fields: readonly KindField[], { labels }: NamesOfIds): StarterField[] =>
  fields
    .filter(({ isRemoved }) => !isRemoved)
    .map(({ name, type, choices, of, ...one }) => ({
      name,
      type,
      ...saidOf(one, NO_FIELD_SETTINGS, [
        'help',
        'isRequired',
        'isForVisitors',
        'property',
        'unit',
        'currency',
        'isSeveral',
        'backName',
      ]),
      ...namesOf(choices, of, labels),
    }));

/** A form as a starter says it. */
export function starterFormOf({ name, fields, leadsTo, ...form }: SiteForm, names: NamesOfIds): StarterForm {
  const to = leadsTo === null ? undefined : names.titleOf(leadsTo);
  return {
    name,
    ...saidOf(form, NO_FORM_SETTINGS, ['button', 'thanks', 'keptDays']),
    ...(to && { leadsTo: to }),
    fields: fields.map((field) => starterFormField(field, fields, names)),
  };
}

function starterFormField(
  field: FormField,
  all: readonly FormField[],
  { labels, titleOf }: NamesOfIds,
): StarterFormField {
  const { name, type, choices, of, shownIf, policy } = field;
  const before = shownIf && all.find(({ id }) => id === shownIf.field);
  const agreed = policy === null ? undefined : titleOf(policy);
  return {
    name,
    type,
    ...saidOf(field, NO_FORM_FIELD_SETTINGS, [
      'help',
      'isRequired',
      'unit',
      'currency',
      'isSeveral',
      'step',
      'filledWith',
    ]),
    ...namesOf(choices, of, labels),
    ...(agreed && { policy: agreed }),
    ...(before && {
      shownIf: {
        field: before.name,
        test: shownIf.test,
        value: before.choices.find(({ id }) => id === shownIf.value)?.name ?? shownIf.value,
      },
    }),
  };
}

function namesOf(choices: KindField['choices'], of: LabelId | null, labels: readonly PageLabel[]) {
  const kind = labels.find(({ id }) => id === of)?.name;
  return { ...(choices.length > 0 && { choices: choices.map(({ name }) => name) }), ...(kind && { of: kind }) };
}

/** What is not as usual of some settings. */
function saidOf<All extends object, Name extends keyof All>(
  all: All,
  usual: { readonly [Key in Name]: All[Key] },
  names: readonly Name[],
): Partial<Pick<All, Name>> {
  return Object.fromEntries(names.flatMap((name) => (all[name] === usual[name] ? [] : [[name, all[name]]]))) as Partial<
    Pick<All, Name>
  >;
}

/** What a starter says besides what goes by name. */
const allBut = <All extends object, Name extends keyof All>(all: All, ...names: readonly Name[]): Omit<All, Name> =>
  Object.fromEntries(Object.entries(all).filter(([name]) => !names.includes(name as Name))) as Omit<All, Name>;

const isSame = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
