import { expect, it } from 'vitest';
import { fromFirst, isMailAddress, upTo, withoutTrailing } from './cut-text.ts';

it('cuts before the first of several signs', () => {
  expect([upTo('/a?b#c', '?', '#'), upTo('/a#b?c', '?', '#'), upTo('/a', '?', '#')]).toEqual(['/a', '/a', '/a']);
  expect([fromFirst('/a?b?c', '?'), fromFirst('/a', '?')]).toEqual(['?b?c', '']);
});

it('takes signs away at the end alone', () => {
  expect(['//a//', '////', '', 'a'].map((text) => withoutTrailing(text, '/'))).toEqual(['//a', '', '', 'a']);
  expect(withoutTrailing('Words, and:;', ':;,')).toBe('Words, and');
});

it.each(['a@b.c', 'ines.carrow@mail.pellow-quay.example'])('takes %s for a mail address', (text) =>
  expect(isMailAddress(text)).toBe(true),
);
it.each([
  '',
  'a',
  'a@b',
  '@b.c',
  'a@b.',
  'a@b@c.d',
  'a b@c.d',
  'a@.c',
  'a@.b.c',
  'a@b..c',
  `${'a'.repeat(251)}@b.c`,
  'a@b.c\n',
])('does not take %j for one', (text) => expect(isMailAddress(text)).toBe(false));
