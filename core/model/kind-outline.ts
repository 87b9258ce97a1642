import { type LabelId, ruleOf } from './access.ts';
import type { ContentId } from './ids.ts';
import type { SiteNode } from './node.ts';
import type { PageChanges } from './page-fields.ts';
import { type PageLabel, kindAmong, withKind } from './page-label.ts';

/** What is asked of a page, one to be among them. */
type OfKind = Pick<SiteNode, 'type' | 'access' | 'content'>;

/** The text that a page of these labels begins with; null where its kind has no outline. */
const outlineAmong = (borne: readonly LabelId[], labels: readonly PageLabel[]): ContentId | null =>
  kindAmong(borne, labels)?.pageOutline ?? null;

/** Whether a page has the text that its kind gives it: it follows the outline until somebody writes on it. */
export const isAsItsKind = ({ type, access, content }: OfKind, labels: readonly PageLabel[]): boolean =>
  type === 'page' && content !== null && content === outlineAmong(ruleOf({ access }).labels, labels);

/**
 * What gives a page another kind, or none: a page without a text, or with that of the kind that it had, gets what the new kind's pages begin
 * with. @returns nothing where it is of that kind
 */
export function kindChanges(node: OfKind, kind: LabelId | null, labels: readonly PageLabel[]): PageChanges {
  const borne = ruleOf(node).labels;
  if ((kindAmong(borne, labels)?.id ?? null) === kind) return {};
  const next = withKind(borne, kind, labels);
  const outline = outlineAmong(next, labels);
  const hasOwn = node.content !== null && !isAsItsKind(node, labels);
  const isSet = node.type === 'page' && !hasOwn && node.content !== outline;
  return { access: { labels: next }, ...(isSet && { content: outline }) };
}
