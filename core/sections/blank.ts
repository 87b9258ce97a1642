import { DETAIL, FACT, type TextDocument, type TextPart } from '../model/content.ts';
import { SECTIONS } from './all-sections.ts';
import { PLANNED_BOX } from './planned-box.ts';

/** What says something without holding words. */
const SPEAKS: ReadonlySet<string> = new Set([
  FACT,
  DETAIL,
  'horizontalRule',
  ...SECTIONS.filter(({ content, files }) => content === '' || files !== undefined).map(({ type }) => type),
]);

/** Whether nothing is left of a text: no words, and nothing that shows without words. */
export function isBlank(part: TextDocument | TextPart): boolean {
  // A place that a sketch planned stays, though nobody has written there yet.
  if ('attrs' in part && part.attrs?.[PLANNED_BOX] != null) return false;
  if ('text' in part && part.text !== undefined) return part.text.trim() === '';
  return !SPEAKS.has(part.type) && (part.content ?? []).every(isBlank);
}
