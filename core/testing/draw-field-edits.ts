import type { PageId } from '../model/ids.ts';
import {
  FIELD_TYPES,
  type FieldId,
  type FieldSettings,
  type FieldTypeName,
  type KindField,
} from '../model/kind-field.ts';
import type { DetailsChange } from '../model/details.ts';
import { isKind } from '../model/page-label.ts';
import type { Site } from '../model/site.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import { NOBODY, drawId, drawName, drawNewId, maybePage } from './draw-values.ts';

const FIELDS = ['price', 'starts', 'teachers', 'office', 'size', 'leads', 'photo', 'grade'];
const CHOICES = [
  { id: 's', name: 'Small' },
  { id: 'm', name: 'Middling' },
  { id: 'l', name: 'Large' },
];

const fieldsOf = (site: Site): readonly KindField[] => site.settings.labels.flatMap(({ fields }) => fields ?? []);
const drawField = (site: Site, draw: Draw): FieldId =>
  draw.odd() ? (NOBODY as string as FieldId) : ((draw.maybeOf(fieldsOf(site))?.id ?? NOBODY) as FieldId);

const drawSettings = (site: Site, draw: Draw): Partial<FieldSettings> => ({
  type: draw.of(FIELD_TYPES),
  choices: draw.odd() ? [CHOICES[0]!, CHOICES[0]!] : draw.some(CHOICES, 1, 3),
  isSeveral: draw.chance(0.5),
  of: draw.chance(0.5) ? null : (draw.maybeOf(site.settings.labels)?.id ?? null),
  backName: draw.of(['', 'Courses']),
});

export const drawFieldAdd: OperationDraws['field.add'] = (site, draw) => {
  const kinds = site.settings.labels.filter(isKind);
  return {
    name: 'field.add',
    label: drawId(draw.chance(0.8) && kinds.length > 0 ? kinds : site.settings.labels, draw),
    field: drawNewId(fieldsOf(site), FIELDS, draw),
    title: drawName(draw, ['Price', 'Starts on', 'Teachers']),
    settings: draw.maybe(0.9, () => drawSettings(site, draw)),
  };
};

export const drawFieldSet: OperationDraws['field.set'] = (site, draw) => {
  const field = drawField(site, draw);
  const was = fieldsOf(site).find(({ id }) => id === field);
  const settings = Object.entries({
    ...drawSettings(site, draw),
    title: drawName(draw, ['Fee', 'Begins']),
    isRemoved: !(was?.isRemoved ?? false),
    isRequired: !(was?.isRequired ?? false),
  });
  return { name: 'field.set', field, fields: Object.fromEntries(draw.some(settings, 1, 3)) };
};

export const drawFieldMove: OperationDraws['field.move'] = (site, draw) => {
  const kinds = site.settings.labels.filter(({ fields = [] }) => fields.length > 1);
  const fields = draw.maybeOf(kinds)?.fields ?? [];
  const field = draw.odd() ? (NOBODY as string as FieldId) : (draw.maybeOf(fields)?.id ?? drawField(site, draw));
  const at = fields.findIndex(({ id }) => id === field);
  const places = [null, ...fields.map(({ id }) => id)].filter((id) => id !== field && id !== fields[at - 1]?.id);
  return { name: 'field.move', field, after: draw.maybeOf(places) ?? null };
};

export const drawFieldRemove: OperationDraws['field.remove'] = (site, draw) => ({
  name: 'field.remove',
  field: drawField(site, draw),
});

/** Values of each type; those of pages and choices are drawn from what is there. */
const VALUES: Readonly<Record<Exclude<FieldTypeName, 'pages' | 'choice'>, readonly string[]>> = {
  text: ['Boatbuilder', '12', 'yes', 's'],
  longText: ['One line\nand another', '420 EUR'],
  number: ['12', '0.5', '-3'],
  money: ['420 EUR', '12.5 GBP'],
  yesNo: ['yes', 'no'],
  day: ['2027-03-05', '2026-12-24'],
  moment: ['2027-03-05T18:30'],
  period: ['2027-03-05/2027-03-09'],
  repeats: ['2027-03-06 FREQ=MONTHLY;BYDAY=1SA', '2026-11-02 10:00-12:00 FREQ=WEEKLY;BYDAY=MO,WE without 2026-11-09'],
  telephone: ['01632 960 001', '12'.repeat(2)],
  mail: ['desk@pellow-quay.example'],
  link: ['https://ferry.example/timetable'],
  address: ['1 Slipway\nPellow Quay'],
  place: ['54.12,-3.21'],
  file: ['aaaaaaaaaaaaaaaa'],
};

/** What a page can say in some of the fields of the site, whatever its kind; an odd one breaks a rule. */
export function drawDetails(site: Site, draw: Draw): DetailsChange | undefined {
  const known = fieldsOf(site);
  // No type has a value that begins with a space.
  if (draw.odd()) return { [draw.chance(0.2) ? NOBODY : (draw.maybeOf(known)?.id ?? NOBODY)]: ' ?' } as DetailsChange;
  const fields = draw.some(known, 1, 3);
  if (fields.length === 0) return undefined;
  return Object.fromEntries(fields.map((field) => [field.id, draw.chance(0.15) ? null : drawValue(field, site, draw)]));
}

function drawValue({ type, choices, isSeveral }: KindField, site: Site, draw: Draw): string | null {
  if (type === 'choice') {
    const ids = choices.map(({ id }) => id);
    return ids.length === 0 ? null : isSeveral ? ids.join(' ') : draw.of(ids);
  }
  if (type !== 'pages') return draw.of(VALUES[type]);
  const pages = [maybePage(site, draw), maybePage(site, draw)].filter((id): id is PageId => id !== undefined);
  return pages.length === 0 ? null : isSeveral ? [...new Set(pages)].join(' ') : pages[0]!;
}
