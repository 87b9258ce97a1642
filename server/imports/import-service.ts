import { createHash } from 'node:crypto';
import type { LineFault } from '#core/carryover/inventory.ts';
import { readCsvTable } from '#core/formats/csv-table.ts';
import { short } from '#core/formats/address-list.ts';
import { readOpml } from '#core/formats/opml.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { readSiteCsv } from '#core/formats/site-csv.ts';
import { type SiteFile, readSiteJson } from '#core/formats/site-json.ts';
import { readIndentedTree, readSitemapTree } from '#core/formats/tree-lists.ts';
import type { BroughtTree } from '#core/imports/brought-page.ts';
import { type TellRefused, operationsOf, planImport } from '#core/imports/import-plan.ts';
import { planSiteFile } from '#core/imports/site-file-plan.ts';
import type { TextDocument } from '#core/model/content.ts';
import { type PageId, type SiteKey, toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { PlainAccount } from '../accounts/account-repository.ts';
import { MAX_OPERATIONS, type OperationsBody } from '#contract/api.ts';
import type { ImportAnswer, ImportBody } from '#contract/imports.ts';
import type { EditService } from '../edits/edit-service.ts';
import { decodeText } from '../old-site/decode-text.ts';
import { unpacked } from '../old-site/bring-pages.ts';
import { ProblemError, refusalProblem } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';

const MAX_FAULTS = 50;
const MAX_NOTES = 200;

interface Read {
  readonly format: ImportAnswer['format'];
  readonly tree: BroughtTree & { ok: true };
  readonly file: SiteFile | null;
}

/** Brings trees from files: previewed as what changes, taken whole or in part, as one step that can be undone. */
export class ImportService {
  readonly #cache: SiteCache;
  readonly #edits: EditService;

  constructor(cache: SiteCache, edits: EditService) {
    this.#cache = cache;
    this.#edits = edits;
  }

  /** @throws ProblemError where the file cannot be read, with lines; then nothing was done. */
  async bring(key: SiteKey, account: PlainAccount, body: ImportBody): Promise<ImportAnswer> {
    const { site, revision } = await this.#cache.current(key);
    const read = await readFile(body, site);
    const newId = idsFrom(body, site);
    const notes = [...read.tree.notes];
    const tellRefused: TellRefused = ({ line, title }, why, at) => {
      const reason = typeof why === 'string' ? why : refusalProblem(why, at).message;
      notes.push({ line: line ?? 1, detail: `‘${short(title)}’ is left out. ${reason}` });
    };
    const items = read.file
      ? planSiteFile(site, read.file, read.tree.pages, newId, tellRefused)
      : planImport(site, read.tree.pages, newId, tellRefused);
    const told = {
      format: read.format,
      pages: read.tree.pages.length,
      items: items.map(({ operation, ...item }) => (void operation, { ...item, fields: [...item.fields] })),
      notes: notes.slice(0, MAX_NOTES),
    };
    if (!body.apply) return { ...told, applied: null, revision };
    const chosen = body.chosen
      ? new Set(body.chosen)
      : new Set(items.filter(({ kind }) => kind !== 'removed').map((item) => item.key));
    const operations = operationsOf(site, items, chosen);
    if (operations.length > MAX_OPERATIONS)
      throw new ProblemError('import-too-large', { count: operations.length, limit: MAX_OPERATIONS });
    if (operations.length === 0) return { ...told, applied: 0, revision };
    const done = await this.#edits.apply(key, account, {
      revision,
      request: body.request,
      operations: operations as OperationsBody['operations'],
      contents: read.file?.contents.map(({ id, document }) => ({ id, document: document as unknown as TextDocument })),
    });
    return { ...told, applied: operations.length, revision: done.revision };
  }
}

async function readFile(body: ImportBody, site: Site): Promise<Read> {
  const name = body.name || 'what was brought';
  if (body.bytes === undefined && body.text === undefined) throw new ProblemError('import-empty');
  const text = (body.text ?? decodeText(await unpacked(Buffer.from(body.bytes ?? '', 'base64'), name))).replace(
    /^\uFEFF/,
    '',
  );
  if (text.trim() === '') throw new ProblemError('import-empty');
  const format = body.format === 'auto' ? formatOf(name, text) : body.format;
  const whole = (tree: BroughtTree, file: SiteFile | null = null): Read => {
    if (!tree.ok) throw refused(name, tree.faults);
    return { format, tree, file };
  };
  switch (format) {
    case 'csv': {
      const table = readCsvTable(text);
      if (!table.ok) throw refused(name, [{ line: table.line ?? 1, detail: table.detail }]);
      return whole(readSiteCsv(table, site, dayIn(site.settings.timeZone, new Date())));
    }
    case 'opml':
      return whole(readOpml(text));
    case 'sitemap':
      return whole(readSitemapTree(text));
    case 'json': {
      const read = readSiteJson(text);
      return 'tree' in read ? whole(read.tree, read.file) : whole(read);
    }
    default:
      return whole(readIndentedTree(text));
  }
}

function formatOf(name: string, text: string): Exclude<ImportBody['format'], 'auto'> {
  const start = text.trimStart().slice(0, 2000);
  if (/<opml\b/i.test(start)) return 'opml';
  if (/<(urlset|sitemapindex)\b/i.test(start) || /\.xml(\.gz)?$/i.test(name)) return 'sitemap';
  if (/\.json$/i.test(name) || start.startsWith('{')) return 'json';
  const head = start.split('\n', 1)[0]!;
  if (/\.(csv|tsv)$/i.test(name) || (/\btitle\b/i.test(head) && /[,;\t]/.test(head))) return 'csv';
  return 'list';
}

function refused(name: string, faults: readonly LineFault[]): ProblemError {
  const [first] = faults;
  return new ProblemError(
    'file-unreadable',
    { name: name.slice(0, 200), line: first?.line ?? 1, reason: first?.detail ?? 'It holds nothing.' },
    faults.slice(0, MAX_FAULTS).map(({ line, detail }) => ({ pointer: `/line/${line}`, detail })),
  );
}

/** Ids for new pages that are the same each time a file is read, so that what was chosen in the preview is found again. */
function idsFrom(body: ImportBody, site: Site): () => PageId {
  const seed = createHash('sha256')
    .update(site.key)
    .update(body.text ?? body.bytes ?? '')
    .digest('hex');
  let count = 0;
  return () => {
    for (;;) {
      const id = toPageId(
        BigInt(`0x${createHash('sha256').update(`${seed} ${count++}`).digest('hex').slice(0, 16)}`)
          .toString(36)
          .slice(0, 12),
      );
      if (!site.nodes.has(id)) return id;
    }
  };
}
