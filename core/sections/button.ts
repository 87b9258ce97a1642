import { z } from 'zod';
import { MAX_TARGET_LENGTH, linkSchema } from './link.ts';
import type { SectionType } from './section-type.ts';

/** A link that leads on, as a button. */
export const BUTTON: SectionType = {
  type: 'button',
  group: 'block',
  content: 'text*',
  attributes: { to: { schema: z.union([z.literal(''), linkSchema.max(MAX_TARGET_LENGTH)]), initial: '' } },
  html: ({ to }) => ['p', { class: 'button' }, to === '' ? ['span', {}, 0] : ['a', { href: String(to) }, 0]],
  listed: {
    name: 'Button',
    says: 'A link that leads on',
    also: ['call to action', 'link'],
    make: () => ({ type: 'button', attrs: { to: '' }, content: [{ type: 'text', text: 'Read on' }] }),
  },
};
