import fc from 'fast-check';
import { expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { MAX_JSON_DEPTH, faultInJson, isSoundText } from './outside-json.ts';

it('finds nothing wrong with any JSON that is not too deep', () => {
  holds(
    fc.property(fc.jsonValue({ maxDepth: 8 }), (value) => {
      const text = JSON.stringify(value);
      expect(faultInJson(value) === null).toBe(
        isSoundText(text) && !text.includes('\\u0000') && !/\\ud[89a-f]/i.test(text),
      );
    }),
  );
});

it.each([
  [{ a: [{ title: 'x\0' }] }, '/a/0/title'],
  [{ 'a/b~': '\ud800' }, '/a~1b~0'],
  [{ 'key\0': 1 }, ''],
  ['\udc00', ''],
])('says where a character stands that no text can have: %j', (value, pointer) => {
  expect(faultInJson(value)).toMatchObject({ pointer, detail: expect.stringContaining('U+0000') });
});

it('takes whole pairs, and any depth up to its limit; beyond that no stack overflows', () => {
  const nested = (levels: number) => {
    let value: unknown = 'end';
    for (let n = 0; n < levels; n++) value = n % 2 === 0 ? [value] : { below: value };
    return value;
  };
  expect(faultInJson(['😀'])).toBeNull();
  expect(faultInJson(nested(MAX_JSON_DEPTH))).toBeNull();
  expect(faultInJson(nested(MAX_JSON_DEPTH + 1))?.detail).toMatch(/nested too deeply/);
  expect(faultInJson(nested(200_000))?.detail).toMatch(/nested too deeply/);
});
