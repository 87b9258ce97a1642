import type { FieldId } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import {
  FORM_FIELD_TYPES,
  type FormField,
  type FormSettings,
  NO_FORM_FIELD_SETTINGS,
  SHOWN_IF_TESTS,
} from '../model/site-form.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import { drawId, drawName, drawNewId, maybePage } from './draw-values.ts';

const NAMES = ['Your name', 'Mail address', 'Course', 'When you can come', 'I agree', 'Telephone', 'Anything else'];
const CHOICES = [
  { id: 'w', name: 'Weekdays' },
  { id: 's', name: 'Saturdays' },
];

/** The fields of a form; an odd one has a name or a choice twice. */
export function drawFormFields(site: Site, draw: Draw): FormField[] {
  const names = draw.some(NAMES, 1, 5);
  if (draw.odd() && draw.chance(0.5)) names.push(names[0]!.toUpperCase());
  return names.map((name, at) => ({
    ...NO_FORM_FIELD_SETTINGS,
    id: `f${at}` as FieldId,
    name,
    type: draw.of(FORM_FIELD_TYPES),
    isRequired: draw.chance(0.4),
    choices: draw.odd() ? [CHOICES[0]!, CHOICES[0]!] : draw.some(CHOICES, 1, 2),
    isSeveral: draw.chance(0.4),
    of: draw.chance(0.7) ? null : (draw.maybeOf(site.settings.labels)?.id ?? null),
    step: draw.chance(0.2) ? 'About you' : null,
    shownIf: draw.chance(0.7)
      ? null
      : { field: `f${draw.int(0, names.length)}` as FieldId, test: draw.of(SHOWN_IF_TESTS), value: 'w' },
    policy: draw.chance(0.8) ? null : (maybePage(site, draw) ?? null),
    filledWith: draw.of([null, 'name', 'mail']),
  }));
}

const drawSettings = (site: Site, draw: Draw): FormSettings => ({
  fields: drawFormFields(site, draw),
  button: draw.of(['', 'Apply']),
  leadsTo: draw.chance(0.5) ? null : (maybePage(site, draw) ?? null),
  thanks: draw.of(['', 'We write back within a week.']),
  mailTo: draw.some(['desk@pellow-quay.example', 'ines@pellow-quay.example'], 0, 2),
  areMailsWhole: draw.chance(0.5),
  keptDays: draw.int(1, 400),
});

export const drawFormAdd: OperationDraws['form.add'] = (site, draw) => ({
  name: 'form.add',
  form: drawNewId(site.settings.forms, ['apply', 'contact', 'visit'], draw),
  title: drawName(draw, ['Application', 'Write to us']),
  settings: draw.maybe(0.8, () => drawSettings(site, draw)),
});

export const drawFormSet: OperationDraws['form.set'] = (site, draw) => ({
  name: 'form.set',
  form: drawId(site.settings.forms, draw),
  fields: Object.fromEntries(
    draw.some(Object.entries({ ...drawSettings(site, draw), title: drawName(draw, ['Apply', 'Ask us']) }), 1, 4),
  ),
});

export const drawFormRemove: OperationDraws['form.remove'] = (site, draw) => ({
  name: 'form.remove',
  form: drawId(site.settings.forms, draw),
});
