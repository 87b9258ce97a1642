import { useState } from 'react';
import { INVENTORY_FIELDS, type InventoryColumns, type InventoryField } from '#core/formats/inventory-csv.ts';
import type { BringOldPagesAnswer, BringOldPagesBody } from '#contract/old-site.ts';
import { wordsOfFault } from '../../api/client.ts';
import { bringOldPages } from '../../api/old-site.ts';
import { FileField } from '../../fields/file-field.tsx';
import { forgetKept, useKept } from '../../fields/use-kept.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, TextArea, TextField } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { numberWords } from '../../ui/number-words.ts';
import { toast } from '../../ui/toast.ts';

type From = BringOldPagesBody['from'];

/** Brings old pages from a sitemap, a file or a list: they are looked at first. */
export function BringOldPages({ way }: { readonly way: 'sitemap' | 'file' | 'list' }) {
  const { site } = useWorkbench();
  const [from, setFrom] = useState<From | null>(null);
  const [seen, setSeen] = useState<BringOldPagesAnswer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const look = async (next: From) => {
    setFrom(next);
    setFault(null);
    setBusy(true);
    try {
      setSeen(await bringOldPages(site.key, { from: next, apply: false }));
    } catch (problem) {
      setSeen(null);
      setFault(wordsOfFault(problem));
    } finally {
      setBusy(false);
    }
  };
  const bring = async () => {
    setBusy(true);
    try {
      const { added, updated } = await bringOldPages(site.key, { from: from!, apply: true });
      toast(`Imported ${added} new addresses${updated > 0 ? ` and updated ${updated}` : ''}.`);
      forgetKept(`old pages ${site.key}`);
      setSeen(null);
    } catch (problem) {
      setFault(wordsOfFault(problem));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      {way === 'list' ? (
        <ListField onLook={look} />
      ) : way === 'sitemap' ? (
        <SitemapField onLook={look} />
      ) : (
        <FileField
          label="A CSV file, or a sitemap file (.xml, .gz)"
          accept=".csv,.txt,.tsv,.xml,.gz"
          hint="The first row of a CSV file must name the columns."
          onFile={(file) => void look({ kind: 'file', ...file })}
          onFault={setFault}
        />
      )}
      {fault && <Notice>{fault}</Notice>}
      {isBusy && (
        <p role="status" className="text-quiet">
          Reading …
        </p>
      )}
      {seen && !isBusy && (
        <>
          {seen.columns && from?.kind === 'file' && (
            <Columns
              columns={seen.columns}
              taken={seen.taken ?? {}}
              onTake={(columns) => void look({ ...from, columns })}
            />
          )}
          <Preview seen={seen} />
          <div>
            <Button look="main" disabled={seen.found === 0} onClick={() => void bring()}>
              Import {numberWords(seen.found)} {seen.found === 1 ? 'address' : 'addresses'}
            </Button>
          </div>
        </>
      )}
    </>
  );
}

function ListField({ onLook }: { readonly onLook: (from: From) => Promise<void> }) {
  const [text, setText] = useKept(`old pages ${useWorkbench().site.key}`);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onLook({ kind: 'list', text });
      }}
    >
      <TextArea
        label="Addresses, one a line"
        rows={8}
        value={text}
        hint="Each address may be followed by a title, after a tab or space."
        onChange={(event) => setText(event.target.value)}
      />
      <div>
        <Button type="submit" disabled={text.trim() === ''}>
          Preview
        </Button>
      </div>
    </form>
  );
}

function SitemapField({ onLook }: { readonly onLook: (from: From) => Promise<void> }) {
  const [address, setAddress] = useState('');
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onLook({ kind: 'address', address });
      }}
    >
      <div className="min-w-0 flex-1">
        <TextField
          label="The address of its sitemap file"
          placeholder="https://old.school.example/sitemap.xml"
          value={address}
          maxLength={2000}
          onChange={(event) => setAddress(event.target.value)}
        />
      </div>
      <Button type="submit" disabled={address.trim() === ''}>
        Fetch
      </Button>
    </form>
  );
}

const FIELD_WORDS: Readonly<Record<InventoryField, string>> = {
  address: 'Address',
  title: 'Title',
  description: 'Description',
  headings: 'Headings',
  words: 'Words',
  status: 'Status',
  visits: 'Visits',
};

/** Which column of a CSV file is what. */
function Columns({
  columns,
  taken,
  onTake,
}: {
  readonly columns: readonly string[];
  readonly taken: InventoryColumns;
  readonly onTake: (columns: InventoryColumns) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">Columns</legend>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {INVENTORY_FIELDS.map((field) => (
          <Choice
            key={field}
            label={FIELD_WORDS[field]}
            value={taken[field] ?? ''}
            onChange={({ target: { value } }) => {
              const others = Object.fromEntries(Object.entries(taken).filter(([name]) => name !== field));
              onTake(value === '' ? others : { ...others, [field]: Number(value) });
            }}
          >
            <option value="">None</option>
            {columns.map((name, at) => (
              <option key={at} value={at}>
                {name || `Column ${at + 1}`}
              </option>
            ))}
          </Choice>
        ))}
      </div>
    </fieldset>
  );
}

function Preview({ seen }: { readonly seen: BringOldPagesAnswer }) {
  return (
    <div>
      <p role="status" className="font-medium">
        {seen.found === 0
          ? 'No addresses found.'
          : `${numberWords(seen.found)} found: ${numberWords(seen.added)} new, ${numberWords(seen.updated)} known already.`}
      </p>
      {seen.faultCount > 0 && (
        <details className="mt-1 text-small text-attention" open={seen.found === 0}>
          <summary className="cursor-pointer">
            {seen.faultCount === 1 ? '1 line was not understood' : `${seen.faultCount} lines were not understood`}
          </summary>
          <ul className="mt-1 max-h-32 overflow-y-auto">
            {seen.faults.map(({ line, detail }, at) => (
              <li key={at}>
                Line {line}: {detail}
              </li>
            ))}
          </ul>
        </details>
      )}
      {seen.sample.length > 0 && (
        <table className="mt-2 w-full table-fixed text-left text-small">
          <thead className="text-quiet">
            <tr>
              <th className="w-3/5 py-1 font-medium">Address</th>
              <th className="py-1 font-medium">Title</th>
              <th className="w-20 py-1 text-right font-medium">Visits</th>
            </tr>
          </thead>
          <tbody>
            {seen.sample.slice(0, 8).map((page) => (
              <tr key={page.address} className="border-t border-rule">
                <td className="truncate py-1 pr-2 font-mono">{page.address}</td>
                <td className="truncate py-1 pr-2">{page.title}</td>
                <td className="py-1 text-right">{page.visits == null ? '' : numberWords(page.visits)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
