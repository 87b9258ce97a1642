import { useState } from 'react';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { MIN_PASSPHRASE_LENGTH } from '#contract/visitors.ts';
import { wordsOfFault } from '../../api/client.ts';
import { makePassphrase } from '../../api/visitors.ts';
import { Button } from '../../ui/button.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The passphrase that a page and what is below it asks for. Its words go to the server and are not shown again. */
export function PassphraseField({ page }: { readonly page: PageId }) {
  const { site, store } = useWorkbench();
  const has = ruleOf(nodeAt(site, page)).passphrase !== null;
  const [words, setWords] = useState('');
  const [fault, setFault] = useState<string | undefined>();
  const isLongEnough = words.trim().length >= MIN_PASSPHRASE_LENGTH;
  const save = () => {
    makePassphrase(site.key, words).then(
      (passphrase) => {
        store.apply([{ name: 'page.set', page, fields: { access: { passphrase } } }]);
        setWords('');
        setFault(undefined);
      },
      (problem: unknown) => setFault(wordsOfFault(problem)),
    );
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (isLongEnough) save();
      }}
    >
      <TextField
        label={has ? 'Another passphrase' : 'Passphrase'}
        autoComplete="off"
        value={words}
        maxLength={200}
        fault={fault}
        hint={
          has
            ? 'Visitors are asked for it once for the branch. It cannot be shown again, but you can replace it.'
            : `Visitors are asked for it once for this page and everything below. At least ${MIN_PASSPHRASE_LENGTH} characters.`
        }
        onChange={(event) => setWords(event.target.value)}
      />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" disabled={!isLongEnough}>
          {has ? 'Replace the passphrase' : 'Ask for this passphrase'}
        </Button>
        {has && (
          <Button
            look="quiet"
            onClick={() => store.apply([{ name: 'page.set', page, fields: { access: { passphrase: null } } }])}
          >
            Remove the passphrase
          </Button>
        )}
      </div>
    </form>
  );
}
