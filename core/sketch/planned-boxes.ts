import { DETAIL, FACT, type TextDocument, type TextPart } from '../model/content.ts';
import type { BoxId } from '../model/sketch.ts';
import { PLANNED_BOX } from '../sections/planned-box.ts';
import { shownBy } from '../sections/shown-files.ts';

/** A box of a sketch that stands in a text, and whether anything is said in its place yet. */
export interface PlannedBox {
  readonly box: BoxId;
  readonly isWritten: boolean;
}

/** Types of sections that show something by themselves as soon as they stand there. */
const SHOWS_ITSELF: ReadonlySet<string> = new Set(['pageList', 'pageFields']);

/**
 * The boxes that stand in a text, each once, in its order. What belongs to a box is the part that names it and all that follows it in
 * the same place, up to the next part that names one: text that grows stays with the box under which it was begun.
 */
export function plannedBoxesOf(document: TextDocument): PlannedBox[] {
  const found = new Map<BoxId, boolean>();
  const walk = (parts: readonly TextPart[], around: BoxId | null): void => {
    let at = around;
    for (const part of parts) {
      const named = boxOf(part);
      if (named !== null) {
        at = named;
        found.set(named, found.get(named) ?? false);
      }
      if (at !== null && speaksItself(part)) found.set(at, true);
      // A button has words before anybody has said where it leads.
      if (part.type !== 'button') walk(part.content ?? [], at);
    }
  };
  walk(document.content ?? [], null);
  return [...found].map(([box, isWritten]) => ({ box, isWritten }));
}

/** The box that a part of a text stands for, or null. */
export const boxOf = ({ attrs }: TextPart): BoxId | null => (attrs?.[PLANNED_BOX] ?? null) as BoxId | null;

/** Whether a part says something apart from what stands in it. */
function speaksItself(part: TextPart): boolean {
  if (part.text !== undefined) return part.text.trim() !== '';
  if (part.type === FACT || part.type === DETAIL || SHOWS_ITSELF.has(part.type)) return true;
  return (shownBy(part)?.length ?? 0) > 0 || isSet(part, 'form', 'of') || isSet(part, 'button', 'to');
}

const isSet = ({ type, attrs }: TextPart, of: string, attribute: string): boolean =>
  type === of && (attrs?.[attribute] ?? '') !== '';

/** A text without the attribute where it names no box, as texts were before there were sketches. */
export const withoutEmptyBoxes = <Part extends TextDocument | TextPart>(part: Part): Part =>
  withoutBoxesWhere(part, (box) => box === null);

/** A text that stands for no box any more. */
export const withoutBoxes = <Part extends TextDocument | TextPart>(part: Part): Part =>
  withoutBoxesWhere(part, () => true);

function withoutBoxesWhere<Part extends TextDocument | TextPart>(part: Part, isLeft: (box: unknown) => boolean): Part {
  const { attrs, content, ...rest } = part as TextPart;
  const isWithout = attrs !== undefined && PLANNED_BOX in attrs && isLeft(attrs[PLANNED_BOX]);
  const kept = isWithout ? Object.entries(attrs).filter(([name]) => name !== PLANNED_BOX) : null;
  return {
    ...rest,
    ...(kept === null ? attrs !== undefined && { attrs } : kept.length > 0 && { attrs: Object.fromEntries(kept) }),
    ...(content !== undefined && { content: content.map((one) => withoutBoxesWhere(one, isLeft)) }),
  } as Part;
}
