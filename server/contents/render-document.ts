import { renderToHTMLString } from '@tiptap/static-renderer';
import sanitizeHtml from 'sanitize-html';
import type { TextDocument } from '#core/model/content.ts';
import { textExtensions } from '#contract/rich-text.ts';

/** A text as HTML for visitors: only the elements that the editor makes, and no address but http, https, mailto and tel. */
export function renderDocument(document: TextDocument): string {
  const html = renderToHTMLString({ extensions: textExtensions, content: document as never });
  return sanitizeHtml(html, {
    allowedTags: [
      'p',
      'h2',
      'h3',
      'ul',
      'ol',
      'li',
      'blockquote',
      'strong',
      'em',
      'u',
      's',
      'code',
      'pre',
      'br',
      'hr',
      'a',
    ],
    allowedAttributes: { a: ['href', 'rel'], ol: ['start'] },
    allowedSchemes: ['http', 'https', 'mailto', 'tel'],
  });
}
