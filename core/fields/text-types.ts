import { isMailAddress } from '../model/cut-text.ts';
import { MAX_DETAIL_LENGTH } from '../model/kind-field.ts';
import { type FieldType, inWordOrder } from './field-type.ts';

const asItIs = (value: string): string => value;
/** On one line, without spaces at its ends or several in a row. */
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();
/** Lines without spaces at their ends, and without empty ones at either end. */
const lines = (text: string): string =>
  text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .join('\n')
    .trim();

/** A type whose values are what was typed, put in order; `isOne` says which texts are some. */
const ofText = (
  is: Pick<FieldType, 'type' | 'name' | 'says' | 'leadsTo'> & {
    readonly expects: string;
    readonly longest: number;
    readonly normal: (typed: string) => string;
    readonly isOne?: (text: string) => boolean;
  },
): FieldType => {
  const isValue = (value: string): boolean =>
    value !== '' && value.length <= is.longest && is.normal(value) === value && (is.isOne?.(value) ?? true);
  return {
    type: is.type,
    name: is.name,
    says: is.says,
    expects: () => is.expects,
    read: (typed) => {
      const value = is.normal(typed);
      return isValue(value) ? value : undefined;
    },
    isValue,
    written: asItIs,
    words: asItIs,
    compare: inWordOrder,
    ...(is.leadsTo && { leadsTo: is.leadsTo }),
    settings: [],
  };
};

const MAX_LINE = 300;

export const TEXT = ofText({
  type: 'text',
  name: 'Short text',
  says: 'One line, such as a position',
  expects: `up to ${MAX_LINE} letters on one line`,
  longest: MAX_LINE,
  normal: oneLine,
});

export const LONG_TEXT = ofText({
  type: 'longText',
  name: 'Long text',
  says: 'Several lines',
  expects: `up to ${MAX_DETAIL_LENGTH} letters`,
  longest: MAX_DETAIL_LENGTH,
  normal: lines,
});

export const TELEPHONE = ofText({
  type: 'telephone',
  name: 'Telephone',
  says: 'A number that telephones call at a tap',
  expects: 'a telephone number, such as +44 1632 960 001',
  longest: 40,
  normal: oneLine,
  isOne: (text) => /^[+(\d][\d ()/.-]*$/.test(text) && digitsIn(text) >= 3 && digitsIn(text) <= 15,
  leadsTo: (value) => `tel:${value.replace('(0)', value.startsWith('+') ? '' : '0').replace(/[^\d+]/g, '')}`,
});
/** E.164 allows fifteen digits; short ones are numbers within a house. */
const digitsIn = (text: string): number => text.replace(/\D/g, '').length;

export const MAIL = ofText({
  type: 'mail',
  name: 'Mail address',
  says: 'An address that mails go to',
  expects: 'a mail address, such as desk@pellow-quay.example',
  longest: 254,
  normal: oneLine,
  isOne: isMailAddress,
  leadsTo: (value) => `mailto:${value.split('@').map(encodeURIComponent).join('@')}`,
});

export const LINK = ofText({
  type: 'link',
  name: 'Outside link',
  says: 'An address on another site',
  expects: 'an address that begins with https:// or http://',
  longest: 2000,
  normal: (typed) => typed.trim(),
  isOne: (text) => /^https?:\/\/[^\s"<>]+$/i.test(text) && URL.canParse(text),
  leadsTo: (value) => value,
});

export const ADDRESS = ofText({
  type: 'address',
  name: 'Postal address',
  says: 'Street, place and country, a line each',
  expects: 'an address of up to 500 letters, a line for each part',
  longest: 500,
  normal: (typed) =>
    lines(typed)
      .split('\n')
      .filter((line) => line !== '')
      .join('\n'),
});
