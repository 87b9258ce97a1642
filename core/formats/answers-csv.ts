import type { Said } from '../forms/answer.ts';
import type { SiteForm } from '../model/site-form.ts';
import type { FieldId } from '../model/kind-field.ts';
import { writeCsvTable } from './csv-table.ts';

/** An answer as a row. */
export interface AnswerRow {
  /** As ISO 8601 has it. */
  readonly sentAt: string;
  readonly page: string;
  readonly visitor: string;
  readonly state: string;
  readonly note: string;
  readonly said: readonly Said[];
}

/** Types of which a spreadsheet reads the value better than the words of it. */
const BY_VALUE: ReadonlySet<Said['type']> = new Set(['number', 'day', 'moment', 'yesNo', 'place']);

/**
 * Answers as a table: a column for each field of the form as it is now, then for those that it had when some were sent.
 * @param form null where it is gone
 */
export function writeAnswersCsv(form: SiteForm | null, answers: readonly AnswerRow[]): string {
  const columns = new Map<FieldId, string>(form?.fields.map(({ id, name }) => [id, name]));
  for (const { said } of answers) for (const { field, name } of said) if (!columns.has(field)) columns.set(field, name);
  return writeCsvTable(
    ['sent', 'page', 'signed in as', 'state', 'note', ...columns.values()],
    answers.map(({ sentAt, page, visitor, state, note, said }) => {
      const byField = new Map(said.map((one) => [one.field, BY_VALUE.has(one.type) ? one.value : one.words]));
      return [sentAt, page, visitor, state, note, ...[...columns.keys()].map((field) => byField.get(field) ?? '')];
    }),
  );
}
