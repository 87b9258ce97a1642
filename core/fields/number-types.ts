import type { FieldContext, FieldType } from './field-type.ts';
import { numberFormat } from './formats.ts';

/** A number in its one form: no zeros that say nothing, a point before the fraction; up to fifteen digits, as doubles keep them. */
const NUMBER = /^(?:0|-?[1-9]\d*|-?(?:0|[1-9]\d*)\.\d*[1-9])$/;
const isNumber = (value: string): boolean =>
  NUMBER.test(value) && (value.length <= 15 || value.replace(/\D/g, '').length <= 15);

const marks = new Map<string, { readonly decimal: string; readonly group: string }>();
/** How a language writes numbers: what stands before the fraction, and between groups of three digits. */
function marksOf(language: string): { readonly decimal: string; readonly group: string } {
  let found = marks.get(language);
  if (!found) {
    const parts = new Intl.NumberFormat(language, { useGrouping: true }).formatToParts(-1234567.5);
    const of = (type: string) => parts.find((part) => part.type === type)?.value ?? '';
    marks.set(language, (found = { decimal: of('decimal') || '.', group: of('group') || ' ' }));
  }
  return found;
}

/** A number as somebody types it in that language: groups are three digits each, and the fraction may have a point anywhere it cannot be a group. */
function readNumber(typed: string, language: string): string | undefined {
  const { decimal, group } = marksOf(language);
  const text = typed
    .trim()
    .replace(/^[−–]/, '-')
    .replace(/[  ’']/g, ' ');
  if (text.length > 40) return undefined;
  const mark = group.trim() === '' || group === '’' ? ' ' : group;
  const [whole = '', fraction, ...more] = text.split(decimal);
  if (more.length > 0) return undefined;
  const digits = ungrouped(whole, mark) ?? (decimal === '.' ? undefined : plainPoint(text, fraction));
  if (digits === undefined || (fraction !== undefined && !/^\d+$/.test(fraction))) return undefined;
  return normal(fraction === undefined || digits.includes('.') ? digits : `${digits}.${fraction}`);
}

/** Digits without the marks between groups of three; undefined where these stand elsewhere. */
function ungrouped(whole: string, mark: string): string | undefined {
  const sign = whole.startsWith('-') ? '-' : '';
  const [first = '', ...groups] = whole.slice(sign.length).split(mark);
  const isSound = /^\d+$/.test(first) && groups.every((one) => /^\d{3}$/.test(one));
  return isSound && (groups.length === 0 || first.length <= 3) ? sign + first + groups.join('') : undefined;
}
/** "12.5" where the language would have "12,5". */
const plainPoint = (text: string, fraction: string | undefined): string | undefined =>
  fraction === undefined && /^-?\d+\.\d{1,2}$/.test(text) ? text : undefined;

function normal(digits: string): string | undefined {
  const sign = digits.startsWith('-') ? '-' : '';
  const [whole = '', fraction = ''] = digits.slice(sign.length).split('.');
  const plain = whole.replace(/^0+(?=\d)/, '');
  let end = fraction.length;
  while (end > 0 && fraction[end - 1] === '0') end--;
  const value = end > 0 ? `${plain}.${fraction.slice(0, end)}` : plain;
  const signed = value === '0' ? '0' : sign + value;
  return isNumber(signed) ? signed : undefined;
}

const written = (value: string, language: string): string => value.replace('.', marksOf(language).decimal);
const bySize = (a: string, b: string): number => Number.parseFloat(a) - Number.parseFloat(b);

/** Without the unit at its end, which people type along. */
const withoutUnit = (typed: string, unit: string): string => {
  const text = typed.trim();
  return unit !== '' && text.toLowerCase().endsWith(unit.toLowerCase()) ? text.slice(0, -unit.length) : text;
};

export const NUMBER_TYPE: FieldType = {
  type: 'number',
  name: 'Number',
  says: 'Counted or measured, with a unit',
  expects: ({ unit }) => `a number, such as 12.5${unit === '' ? '' : `; the unit, ${unit}, is added`}`,
  read: (typed, { unit }, { language }) => readNumber(withoutUnit(typed, unit), language),
  isValue: isNumber,
  written: (value, _, { language }) => written(value, language),
  words: (value, { unit }, { language }) =>
    `${numberFormat(language).format(Number(value))}${unit === '' ? '' : ` ${unit}`}`,
  compare: bySize,
  settings: ['unit'],
};

/** The currencies whose signs people type; all others by their letters. */
const SIGNS: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP', $: 'USD' };
const MONEY = /^(\S+) ([A-Z]{3})$/;

/** A typed sum parted into its amount and its currency. */
function partsOfSum(typed: string, otherwise: string): readonly [amount: string, currency: string] {
  const text = typed.trim();
  for (const [sign, currency] of Object.entries(SIGNS))
    if (text.startsWith(sign) || text.endsWith(sign)) return [text.replace(sign, ''), currency];
  const letters = /[A-Za-z]{3}$/.exec(text)?.[0] ?? /^[A-Za-z]{3}/.exec(text)?.[0];
  return letters === undefined ? [text, otherwise] : [text.replace(letters, ''), letters.toUpperCase()];
}

function moneyWords(value: string, { language }: FieldContext): string {
  const [, amount = '', currency = ''] = MONEY.exec(value) ?? [];
  return numberFormat(language, currency, !amount.includes('.')).format(Number(amount));
}

export const MONEY_TYPE: FieldType = {
  type: 'money',
  name: 'Money',
  says: 'A price or another sum',
  expects: ({ currency }) => `a sum, such as 420 or 12.50; without a currency it is in ${currency}`,
  read: (typed, { currency: own }, { language }) => {
    const [amount, currency] = partsOfSum(typed, own);
    const number = readNumber(amount, language);
    return number === undefined ? undefined : `${number} ${currency}`;
  },
  isValue: (value) => isNumber(MONEY.exec(value)?.[1] ?? ''),
  written: (value, _, { language }) => written(value, language),
  words: (value, _, context) => moneyWords(value, context),
  compare: (a, b) => bySize(a, b),
  settings: ['currency'],
};
