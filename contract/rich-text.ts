import { type Extensions, getSchema } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';

/** What a page's text may hold: the same list in the editor, in the check on the way in, and in the rendering. */
export const textExtensions: Extensions = [
  StarterKit.configure({
    heading: { levels: [2, 3] },
    link: {
      openOnClick: false,
      protocols: ['http', 'https', 'mailto', 'tel'],
      HTMLAttributes: { rel: 'noopener', target: null },
    },
  }),
];

/** The editor's schema, for checking documents that come from outside. */
export const textSchema = getSchema(textExtensions);
