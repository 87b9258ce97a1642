import type { TextDocument } from '../model/content.ts';
import { type FormId, formIdSchema } from '../model/site-form.ts';
import { FORM } from './form.ts';
import { namedIn } from './shown-shared.ts';

/** The forms that a text shows, each once, in the order in which they come. */
export const formsIn = (document: TextDocument): FormId[] => namedIn(document, FORM.type, formIdSchema);
