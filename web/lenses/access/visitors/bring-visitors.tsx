import { useState } from 'react';
import type { BringVisitorsAnswer } from '#contract/visitors.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { bringVisitors } from '../../../api/visitors.ts';
import { useKept } from '../../../fields/use-kept.ts';
import { Button } from '../../../ui/button.tsx';
import { TextArea, TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const MAX_SHOWN = 8;
const EXAMPLE = 'name,email,audiences\nJory Pell,jory@home.example,Students';

/** Brings a list of visitors as CSV, with what it changes shown before. */
export function BringVisitors() {
  const { site } = useWorkbench();
  const [text, setText] = useKept(`visitors ${site.key}`);
  const [seen, setSeen] = useState<BringVisitorsAnswer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const type = (next: string) => {
    setText(next);
    setSeen(null);
  };
  const ask = async (apply: boolean) => {
    setBusy(true);
    setFault(null);
    try {
      const answer = await bringVisitors(site.key, text, apply);
      if (apply) {
        toast(`${accounts(answer.made.length)} made, ${answer.changed.length} added to more audiences.`);
        type('');
      } else setSeen(answer);
    } catch (problem) {
      setFault(wordsOfFault(problem));
    }
    setBusy(false);
  };
  return (
    <div className="flex flex-col gap-3">
      <p className="text-quiet">
        The columns are name, email and audiences, with audiences separated by |. New visitors get a mail to choose a
        password; visitors with an account join the audiences and keep those they have.
      </p>
      {fault && <Notice>{fault}</Notice>}
      <TextField
        label="A CSV file"
        type="file"
        accept=".csv,text/csv"
        onChange={(event) => void event.target.files?.[0]?.text().then(type)}
      />
      <TextArea
        label="Or paste a list"
        rows={5}
        placeholder={EXAMPLE}
        value={text}
        onChange={(event) => type(event.target.value)}
      />
      {seen && <Changes seen={seen} />}
      <div>
        {seen === null ? (
          <Button look="main" disabled={isBusy || text.trim() === ''} onClick={() => void ask(false)}>
            See what changes
          </Button>
        ) : (
          <Button
            look="main"
            disabled={isBusy || seen.made.length + seen.changed.length === 0}
            onClick={() => void ask(true)}
          >
            Import {accounts(seen.made.length + seen.changed.length)}
          </Button>
        )}
      </div>
    </div>
  );
}

function Changes({ seen: { made, changed, faults } }: { readonly seen: BringVisitorsAnswer }) {
  const all = [...made, ...changed];
  return (
    <section aria-label="What changes" className="rounded-md border border-rule px-4 py-3">
      <h3 className="font-medium">
        {all.length === 0
          ? 'Nothing changes.'
          : `${accounts(made.length)} will be made, ${changed.length} added to more audiences.`}
      </h3>
      <ul className="mt-1 text-small">
        {all.slice(0, MAX_SHOWN).map(({ name, email }) => (
          <li key={email}>
            {name} <span className="text-quiet">{email}</span>
          </li>
        ))}
        {all.length > MAX_SHOWN && <li className="text-quiet">and {all.length - MAX_SHOWN} more</li>}
      </ul>
      {faults.length > 0 && (
        <ul aria-label="Not understood" className="mt-2 text-small text-attention">
          {faults.slice(0, MAX_SHOWN).map(({ line, detail }) => (
            <li key={`${line} ${detail}`}>{line === null ? detail : `Line ${line}: ${detail}`}</li>
          ))}
          {faults.length > MAX_SHOWN && <li>and {faults.length - MAX_SHOWN} more</li>}
        </ul>
      )}
    </section>
  );
}

const accounts = (number: number): string => (number === 1 ? '1 account' : `${number} accounts`);
