import { useState } from 'react';
import type { ReadRedirects } from '#contract/releases.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { readRedirects } from '../../../api/releases.ts';
import { newRedirectId } from '../../../api/site-store.ts';
import { useKept } from '../../../fields/use-kept.ts';
import { Button } from '../../../ui/button.tsx';
import { TextArea, TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const MAX_LISTED = 60;

/** Brings a table of redirects: what can be made of it, line by line, before anything is. */
export function BringRedirects({ onDone }: { readonly onDone: () => void }) {
  const { site, store } = useWorkbench();
  const [text, setText] = useKept(`redirects ${site.key}`);
  const [rows, setRows] = useState<ReadRedirects['rows'] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const read = async (given: string) => {
    setText(given);
    setFault(null);
    setRows(null);
    if (given.trim() === '') return;
    try {
      setRows((await readRedirects(site.key, given)).rows);
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  };
  const good = rows?.filter(({ destination }) => destination !== null) ?? [];
  const bad = rows?.filter((row) => row.fault !== null) ?? [];
  const make = () => {
    const refused = store.apply(
      good.map(({ from, destination }) => ({
        name: 'redirect.add' as const,
        redirect: newRedirectId(),
        from,
        to: destination!,
      })),
    );
    if (refused !== null) return;
    toast.success(`${count(good.length)} made; visitors have them with the next release.`);
    setText('');
    onDone();
  };
  return (
    <div className="flex flex-col gap-3 pb-2">
      <p className="text-quiet">
        A CSV table with the columns ‘from’ and ‘to’. If ‘to’ is empty, or a ‘status’ column says 410, the address is
        permanently gone.
      </p>
      <TextField
        label="A file"
        type="file"
        accept=".csv,text/csv"
        onChange={(event) => void event.target.files?.[0]?.text().then(read)}
      />
      <TextArea
        label="Or paste it"
        rows={4}
        spellCheck={false}
        value={text}
        onChange={(event) => void read(event.target.value)}
      />
      {fault && <Notice>{fault}</Notice>}
      {rows && (
        <>
          <p role="status" className="font-medium">
            {count(good.length)} can be made
            {bad.length > 0 && `, ${bad.length === 1 ? '1 line cannot' : `${bad.length} lines cannot`}`}.
          </p>
          {bad.length > 0 && (
            <ul aria-label="Lines that cannot be made" className="rounded-md bg-attention-soft px-3 py-2 text-small">
              {bad.slice(0, MAX_LISTED).map((row) => (
                <li key={row.line}>
                  Line {row.line}: {row.from !== '' && <span className="font-mono">{row.from} </span>}
                  {row.fault}
                </li>
              ))}
            </ul>
          )}
          <div>
            <Button look="main" disabled={good.length === 0} onClick={make}>
              Make {count(good.length)}
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

const count = (number: number): string => (number === 1 ? '1 redirect' : `${number} redirects`);
