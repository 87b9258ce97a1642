import { saidIn } from '#core/forms/answer.ts';
import { type ReadForm, type Sent, readForm } from '#core/forms/reading.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import type { FormField, SiteForm } from '#core/model/site-form.ts';
import { lengthWords } from '#core/files/file.ts';
import { textIn } from '#core/model/texts.ts';
import type { Said } from '#core/forms/answer.ts';
import { fieldContext } from './details.ts';
import { pagesOffered } from './forms.ts';
import { type LiveView, isNamed } from './live-view.ts';
import { siteWords } from './site-words.ts';

/** The largest file of a form, in bytes. */
export const MAX_FORM_FILE_LENGTH = 10_000_000;

/** A form as it came from a browser. */
export interface PostedForm {
  readonly page: PageId;
  readonly stamp: string;
  readonly sent: Sent;
  /** What stands in the field that people leave empty. */
  readonly trap: string;
  /** The texts of policies that were there when the form was shown, by the field that agrees to one. */
  readonly policies: ReadonlyMap<FieldId, string>;
  /** The fields whose files cannot be accepted. */
  readonly unfit: ReadonlySet<FieldId>;
}

export interface CheckedAnswer {
  readonly read: ReadForm;
  /** What is wrong, in words, by field. */
  readonly faults: ReadonlyMap<FieldId, string>;
  /** What is to be kept; nothing is while something is wrong. */
  readonly said: readonly Said[];
}

/** Holds what was posted against a form, for whoever sent it. @param release the number of the release that visitors have */
export function checkAnswer(view: LiveView, form: SiteForm, posted: PostedForm, release: number): CheckedAnswer {
  const { site } = view;
  const { language } = site.settings;
  const words = siteWords(language).form;
  const context = fieldContext(view);
  const offered = new Map<FormField, ReadonlySet<PageId>>();
  const mayChoose = (page: PageId, field: FormField): boolean => {
    let pages = offered.get(field);
    if (!pages) offered.set(field, (pages = new Set(pagesOffered(view, field).map((one) => one.page))));
    return pages.has(page);
  };
  const read = readForm(form.fields, posted.sent, context, mayChoose);
  const faults = new Map<FieldId, string>();
  for (const field of read.asked) {
    const fault = read.faults.get(field.id);
    if (fault === 'required') faults.set(field.id, words.faults.required(field.name));
    if (fault === 'unreadable') faults.set(field.id, words.faults.unreadable(field.name, words.expects[field.type]));
    if (field.type === 'file' && posted.unfit.has(field.id))
      faults.set(field.id, words.faults.file(field.name, lengthWords(MAX_FORM_FILE_LENGTH, language)));
    const policy = policyOf(view, field, release);
    if (
      policy &&
      read.values.get(field.id) === 'yes' &&
      (posted.policies.get(field.id) ?? '') !== (policy.content ?? '')
    )
      faults.set(field.id, words.faults.changed(policy.title));
  }
  return { read, faults, said: saidIn(read, context, (field) => policyOf(view, field, release)) };
}

/** The text that a field agrees to, as whoever sends the form can read it. */
function policyOf(view: LiveView, { policy }: FormField, release: number): Said['agreed'] {
  const { outline } = view.derived;
  const row = policy === null ? undefined : outline.rowOf.get(policy);
  if (row === undefined || !isNamed(view, row)) return undefined;
  const node = outline.nodes[row]!;
  return { page: node.id, title: textIn(node.title, view.site.settings.language), content: node.content, release };
}
