import { expect, it } from 'vitest';
import { belongsToTyping, typingEnds } from './typing-goes-on.ts';

it('letters that follow at once are of what was typed, until a pause or another key', () => {
  expect(belongsToTyping({ key: 'l' }, 0)).toBe(false);
  typingEnds(0);
  for (const [at, key] of [...'People'].entries()) expect(belongsToTyping({ key }, 900 * (at + 1))).toBe(true);
  expect(belongsToTyping({ key: 'n' }, 900 * 6 + 1001)).toBe(false);
  typingEnds(0);
  expect(belongsToTyping({ key: 'ArrowDown' }, 1)).toBe(false);
  expect(belongsToTyping({ key: 'n' }, 2)).toBe(false);
});
