import { renderToHTMLString } from '@tiptap/static-renderer';
import sanitizeHtml from 'sanitize-html';
import { type RenderedPart, type SectionRule, type TextDocument, stretchesOf } from '#core/model/content.ts';
import { filesOf } from '#core/sections/shown-files.ts';
import { sharedIn } from '#core/sections/shown-shared.ts';
import { textExtensions } from '#contract/rich-text.ts';
import { elementsOfSections } from '#contract/section-nodes.ts';

const OF_SECTIONS = elementsOfSections();

/** A text as HTML for all, and its parts where some are for some audiences only. */
export function renderStretches(document: TextDocument): { html: string; parts: RenderedPart[] | null } {
  const stretches = stretchesOf(document);
  if (stretches.every(({ rule }) => rule === null)) return { html: renderDocument(document), parts: null };
  const parts = stretches.map((one) => {
    const files = filesOf(one.document);
    const shared = sharedIn(one.document);
    return {
      only: one.rule?.only ?? null,
      except: one.rule?.except ?? [],
      html: renderDocument(one.document),
      ...(files.length > 0 && { files }),
      ...(shared.length > 0 && { shared }),
    };
  });
  return { html: parts.flatMap(({ html }, at) => (isForAll(parts[at]!) ? html : [])).join(''), parts };
}

const isForAll = ({ only, except }: SectionRule): boolean => only === null && except.length === 0;

/** A text as HTML for visitors: only the elements that the editor makes, and no address but of pages of the site, http, https, mailto and tel. */
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
      'span',
      'h4',
      'table',
      'tbody',
      'tr',
      'th',
      'td',
      ...OF_SECTIONS.tags,
    ],
    allowedAttributes: {
      ...OF_SECTIONS.attributes,
      a: ['href', 'rel', ...(OF_SECTIONS.attributes.a ?? [])],
      ol: ['start'],
      span: ['data-fact'],
      th: ['colspan', 'rowspan', 'scope'],
      td: ['colspan', 'rowspan'],
    },
    allowedSchemes: ['http', 'https', 'mailto', 'tel', 'page'],
  });
}
