import { saidIn } from '#core/forms/answer.ts';
import { type ReadForm, type Sent, readForm } from '#core/forms/reading.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import type { FormField, SiteForm } from '#core/model/site-form.ts';
import { lengthWords } from '#core/files/file.ts';
import { textIn } from '#core/model/texts.ts';
import type { Said } from '#core/forms/answer.ts';
import { fieldContext } from './details.ts';
import { pagesOffered, policyOf } from './forms.ts';
import type { LiveView } from './live-view.ts';
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
  /** The names of the files that came, and of those that cannot be accepted. */
  readonly files: ReadonlyMap<FieldId, { readonly name: string; readonly isFit: boolean }>;
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
  const read = readForm(form.fields, sentOf(form, posted), context, mayChoose);
  const faults = new Map<FieldId, string>();
  for (const field of read.asked) {
    const fault = read.faults.get(field.id);
    if (fault === 'required') faults.set(field.id, words.faults.required(field.name));
    if (fault === 'unreadable') faults.set(field.id, words.faults.unreadable(field.name, words.expects[field.type]));
    if (field.type === 'file' && posted.files.get(field.id)?.isFit === false)
      faults.set(field.id, words.faults.file(field.name, lengthWords(MAX_FORM_FILE_LENGTH, language)));
    const policy = agreementOf(view, field, release);
    if (
      policy &&
      read.values.get(field.id) === 'yes' &&
      (posted.policies.get(field.id) ?? '') !== (policy.content ?? '')
    )
      faults.set(field.id, words.faults.changed(policy.title));
  }
  return { read, faults, said: saidIn(read, context, (field) => agreementOf(view, field, release)) };
}

/** What was sent, in fields for files those that came: their names as texts are none. */
const sentOf = ({ fields }: SiteForm, { sent, files }: PostedForm): Sent =>
  new Map(
    fields.flatMap(({ id, type }): [FieldId, readonly string[]][] => {
      const file = files.get(id);
      return type !== 'file' ? [[id, sent.get(id) ?? []]] : file ? [[id, [file.name]]] : [];
    }),
  );

/** The text that a field agrees to, as it is kept with the answer. */
function agreementOf(view: LiveView, field: FormField, release: number): Said['agreed'] {
  const found = policyOf(view, field);
  if (!found) return undefined;
  const { id: page, title, content } = found.node;
  return { page, title: textIn(title, view.site.settings.language), content, release };
}
