import { expect, it } from 'vitest';
import { getSchema } from '@tiptap/core';
import { textExtensions } from '#contract/rich-text.ts';
import { saysTheSame } from './says-the-same.ts';

const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const words = (text: string, ...marks: object[]) => ({ type: 'text', text, marks });
const list = (...items: string[]) => ({
  type: 'bulletList',
  content: items.map((item) => ({ type: 'listItem', content: [paragraph(words(item))] })),
});
/** Each of a schema of its own, as each editor has one. */
const text = (...content: object[]) => getSchema(textExtensions).nodeFromJSON({ type: 'doc', content });

it('takes no notice of what a link leaves to be understood', () => {
  const link = (attrs: object) => text(paragraph(words('Tides', { type: 'link', attrs })));
  const href = 'https://tides.example/';
  expect(saysTheSame(link({ href }), link({ href, rel: 'noopener', target: null }))).toBe(true);
  expect(saysTheSame(link({ href }), link({ href: 'https://moon.example/' }))).toBe(false);
});

it('takes no notice of the empty line after a list, but of any other', () => {
  const ends = text(list('Bring a pencil'));
  expect(saysTheSame(ends, text(list('Bring a pencil'), paragraph()))).toBe(true);
  expect(saysTheSame(ends, text(paragraph(), list('Bring a pencil')))).toBe(false);
  expect(saysTheSame(ends, text(list('Bring a pencil'), paragraph(words('Or two'))))).toBe(false);
  expect(saysTheSame(text(paragraph()), text(paragraph(), paragraph()))).toBe(false);
});
