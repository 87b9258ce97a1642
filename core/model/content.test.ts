import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type TextDocument, contentIdOf, plainTextOf } from './content.ts';
import { contentIdSchema } from './ids.ts';

const text = (...words: string[]): TextDocument => ({
  type: 'doc',
  content: words.map((word) => ({ type: 'paragraph', content: [{ type: 'text', text: word }] })),
});

describe('the id of a text', () => {
  it('is the same for the same text, whatever the order of its keys', () => {
    const turned = {
      content: [{ content: [{ text: 'Hello', type: 'text' }], type: 'paragraph' }],
      type: 'doc',
    } as const;
    expect(contentIdOf(turned)).toBe(contentIdOf(text('Hello')));
    expect(contentIdOf(JSON.parse(JSON.stringify(text('Hello'))))).toBe(contentIdOf(text('Hello')));
  });
  it('does not see what is undefined, as JSON does not', () =>
    expect(contentIdOf({ ...text('Hello'), attrs: undefined } as TextDocument)).toBe(contentIdOf(text('Hello'))));
  it('is another one for another text, and always has the shape of an id', () => {
    holds(
      fc.property(fc.string(), fc.string(), (a, b) => {
        expect(contentIdSchema.safeParse(contentIdOf(text(a))).success).toBe(true);
        expect(contentIdOf(text(a)) === contentIdOf(text(b))).toBe(a === b);
      }),
    );
  });
  it('stays what it was in stored sites', () => expect(contentIdOf(text('Seven to nine.'))).toBe('ACPrLPczoqrv'));
});

describe('the words of a text', () => {
  it('keeps words whole across marks and parts blocks by spaces', () =>
    expect(
      plainTextOf({
        type: 'doc',
        content: [
          { type: 'heading', content: [{ type: 'text', text: 'Oars' }] },
          {
            type: 'paragraph',
            content: [
              { type: 'text', text: 'un' },
              { type: 'text', text: 'believable', marks: [{ type: 'bold' }] },
            ],
          },
          {
            type: 'bulletList',
            content: [{ type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'ash' }] }] }],
          },
        ],
      }),
    ).toBe('Oars unbelievable ash'));
  it('is empty for an empty text', () =>
    expect(plainTextOf({ type: 'doc', content: [{ type: 'paragraph' }] })).toBe(''));
});
