import { renderToHTMLString } from '@tiptap/static-renderer';
import sanitizeHtml from 'sanitize-html';
import { type RenderedPart, type SectionRule, type TextDocument, stretchesOf } from '#core/model/content.ts';
import { filesOf } from '#core/sections/shown-files.ts';
import { sharedIn } from '#core/sections/shown-shared.ts';
import { textExtensions } from '#contract/rich-text.ts';
import { OWN_HTML_DATA, OWN_HTML_TAGS } from '#core/sections/own-html.ts';
import { elementsOf, withElements } from '../live/html-elements.ts';
import { elementsOfSections } from '#contract/section-nodes.ts';

const OF_SECTIONS = elementsOfSections();

const SCHEMES = ['http', 'https', 'mailto', 'tel', 'page'];

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
  const clean = sanitizeHtml(html, {
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
      span: ['data-fact', 'data-detail', 'data-of'],
      th: ['colspan', 'rowspan', 'scope'],
      td: ['colspan', 'rowspan'],
    },
    allowedSchemes: SCHEMES,
  });
  return withOwnHtml(clean);
}

/** HTML that somebody wrote, in its places and cleaned: of attributes only those stay that say something. */
function withOwnHtml(html: string): string {
  if (!html.includes(OWN_HTML_DATA)) return html;
  const places = elementsOf(html, (_, attributes) => OWN_HTML_DATA in attributes);
  return withElements(
    html,
    places,
    ({ attributes }) =>
      `<div class="own">${sanitizeHtml(attributes[OWN_HTML_DATA]!, {
        allowedTags: [...OWN_HTML_TAGS],
        allowedAttributes: {
          '*': ['lang', 'dir', 'title'],
          a: ['href'],
          ol: ['start', 'reversed', 'type'],
          li: ['value'],
          th: ['colspan', 'rowspan', 'scope'],
          td: ['colspan', 'rowspan'],
          col: ['span'],
          colgroup: ['span'],
          time: ['datetime'],
          details: ['open'],
        },
        allowedSchemes: SCHEMES,
      })}</div>`,
  );
}
