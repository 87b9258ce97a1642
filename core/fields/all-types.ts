import type { FieldTypeName } from '../model/kind-field.ts';
import { CHOICE, FILE, PAGES, PLACE_TYPE, YES_NO } from './choice-types.ts';
import { DAY_TYPE, MOMENT_TYPE, PERIOD_TYPE } from './date-types.ts';
import type { FieldType } from './field-type.ts';
import { MONEY_TYPE, NUMBER_TYPE } from './number-types.ts';
import { REPEATS } from './repeats.ts';
import { ADDRESS, LINK, LONG_TEXT, MAIL, TELEPHONE, TEXT } from './text-types.ts';

/** Every type of field, in the order in which they are offered. */
export const FIELD_TYPE: Readonly<Record<FieldTypeName, FieldType>> = {
  text: TEXT,
  longText: LONG_TEXT,
  number: NUMBER_TYPE,
  money: MONEY_TYPE,
  yesNo: YES_NO,
  choice: CHOICE,
  day: DAY_TYPE,
  moment: MOMENT_TYPE,
  period: PERIOD_TYPE,
  repeats: REPEATS,
  telephone: TELEPHONE,
  mail: MAIL,
  link: LINK,
  address: ADDRESS,
  place: PLACE_TYPE,
  file: FILE,
  pages: PAGES,
};

/** Whether values of a type say on which days something is. */
export const saysWhen = (type: FieldTypeName): boolean =>
  type === 'day' || type === 'moment' || type === 'period' || type === 'repeats';
