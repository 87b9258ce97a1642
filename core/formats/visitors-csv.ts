import { isMailAddress } from '../model/cut-text.ts';
import type { Audience, AudienceId } from '../model/audience.ts';
import type { LineFault } from '../carryover/inventory.ts';
import { readCsvTable } from './csv-table.ts';

/** A visitor of a list, before there is an account. */
export interface ListedVisitor {
  readonly name: string;
  readonly email: string;
  readonly audiences: readonly AudienceId[];
}

export interface ReadVisitors {
  readonly visitors: readonly ListedVisitor[];
  /** What was not understood, with its line from 1; that row, or that audience, is left out. */
  readonly faults: readonly LineFault[];
}

/**
 * Reads a list of visitors as CSV: the columns `name`, `email` and, where there is one, `audiences` with names of the
 * site's audiences parted by `|`. Rows without a name are called by the part of the address in front of the `@`.
 */
export function readVisitorsCsv(text: string, audiences: readonly Audience[]): ReadVisitors {
  const table = readCsvTable(text);
  if (!table.ok) return { visitors: [], faults: [{ line: table.line ?? 1, detail: table.detail }] };
  const columnAt = (pattern: RegExp) => table.columns.findIndex((column) => pattern.test(column));
  const [nameAt, emailAt, audiencesAt] = [columnAt(/^name$/i), columnAt(/^e-?mail/i), columnAt(/^audiences?$/i)];
  if (emailAt === -1)
    return {
      visitors: [],
      faults: [{ line: 1, detail: 'No column is named ‘email’. The first row names the columns.' }],
    };
  const byName = new Map(audiences.map(({ id, name }) => [name.toLowerCase(), id]));
  const visitors = new Map<string, ListedVisitor>();
  const faults: LineFault[] = [];
  for (const { line, cells } of table.rows) {
    const email = cells[emailAt]!;
    if (!isMailAddress(email)) {
      faults.push({
        line,
        detail: email === '' ? 'The row has no mail address.' : `‘${email.slice(0, 60)}’ is not a mail address.`,
      });
      continue;
    }
    if (visitors.has(email.toLowerCase())) {
      faults.push({ line, detail: `${email} appears twice.` });
      continue;
    }
    const named = (audiencesAt === -1 ? '' : cells[audiencesAt]!)
      .split('|')
      .map((one) => one.trim())
      .filter(Boolean);
    const unknown = named.filter((one) => !byName.has(one.toLowerCase()));
    for (const one of unknown) faults.push({ line, detail: `The site has no audience ‘${one.slice(0, 60)}’.` });
    const name = (nameAt === -1 ? '' : cells[nameAt]!) || email.slice(0, email.indexOf('@'));
    const ids = named.flatMap((one) => byName.get(one.toLowerCase()) ?? []);
    visitors.set(email.toLowerCase(), { name: name.slice(0, 100), email, audiences: [...new Set(ids)] });
  }
  return { visitors: [...visitors.values()], faults };
}
