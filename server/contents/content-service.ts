import { type RenderedPart, contentIdOf, type TextDocument } from '#core/model/content.ts';
import type { FileId } from '#core/files/file.ts';
import type { ContentId } from '#core/model/ids.ts';
import type { SharedId } from '#core/model/shared-section.ts';
import { filesOf } from '#core/sections/shown-files.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { BoxId } from '#core/model/sketch.ts';
import { plannedBoxesOf } from '#core/sketch/planned-boxes.ts';
import { formsIn } from '#core/sections/shown-forms.ts';
import { sharedIn } from '#core/sections/shown-shared.ts';
import { textSchema } from '#contract/rich-text.ts';
import { ProblemError } from '../problem.ts';
import { renderStretches } from '../texts/render-document.ts';

export interface StoredContent {
  readonly id: ContentId;
  readonly document: TextDocument;
  /** What all get who get the page. */
  readonly html: string;
  /** The whole text in order, where some of it is for some audiences only; else null. */
  readonly parts: readonly RenderedPart[] | null;
  /** The files of the library that it shows. */
  readonly files: readonly FileId[];
  /** The shared sections that it shows. */
  readonly shared: readonly SharedId[];
  /** The forms that it shows. */
  readonly forms: readonly FormId[];
  /** The boxes of sketches that have a place in it, and those of them where something is said. */
  readonly boxes: readonly BoxId[];
  readonly written: readonly BoxId[];
}

/** The longest text, as JSON. */
export const MAX_TEXT_LENGTH = 400_000;

/**
 * A text that came from outside, checked against the editor's schema and rendered.
 * @throws ProblemError where it is no document, or its id is not that of what it says.
 */
export function acceptContent(given: { id: ContentId; document: TextDocument }): StoredContent {
  const { document } = given;
  if (JSON.stringify(document).length > MAX_TEXT_LENGTH)
    throw new ProblemError('content-invalid', {
      content: given.id,
      reason: `it is longer than ${MAX_TEXT_LENGTH} characters of JSON`,
    });
  try {
    textSchema.nodeFromJSON(document).check();
  } catch (fault) {
    throw new ProblemError('content-invalid', { content: given.id, reason: (fault as Error).message });
  }
  const planned = plannedBoxesOf(document);
  const expected = contentIdOf(document);
  if (expected !== given.id) throw new ProblemError('content-mismatch', { content: given.id, expected });
  return {
    id: given.id,
    document,
    ...renderStretches(document),
    files: filesOf(document),
    shared: sharedIn(document),
    forms: formsIn(document),
    boxes: planned.map(({ box }) => box),
    written: planned.filter(({ isWritten }) => isWritten).map(({ box }) => box),
  };
}
