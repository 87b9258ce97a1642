import { useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { type Destination, redirectAddressSchema } from '#core/model/redirect.ts';
import { newRedirectId } from '../../../api/site-store.ts';
import { PageField } from '../../../fields/page-field.tsx';
import { Button } from '../../../ui/button.tsx';
import { TextField } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** Where a redirect can lead besides to pages. */
export const ELSEWHERE = [
  { value: 'outside', words: 'An outside address' },
  { value: 'gone', words: 'Nowhere: permanently gone (410)' },
];

/** Makes an address lead elsewhere by hand. */
export function NewRedirect() {
  const { store, derived } = useWorkbench();
  const [from, setFrom] = useState('');
  const [to, setTo] = useState<PageId | 'gone' | 'outside' | ''>('');
  const [url, setUrl] = useState('https://');
  const read = redirectAddressSchema.safeParse(from.trim());
  const destination: Destination | null =
    to === ''
      ? null
      : to === 'gone'
        ? 'gone'
        : to === 'outside'
          ? url.length > 8
            ? { url: url.trim() }
            : null
          : { page: to };
  const isReady = read.success && destination !== null;
  const make = () => {
    if (!isReady) return;
    const refused = store.apply([
      { name: 'redirect.add', redirect: newRedirectId(), from: read.data, to: destination },
    ]);
    if (refused !== null) return;
    setFrom('');
    setTo('');
  };
  return (
    <form
      aria-label="A new redirect"
      className="grid items-start gap-3 rounded-md border border-rule px-3 py-3 @xl:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        make();
      }}
    >
      <TextField
        label="The address"
        placeholder="/old-page"
        className="font-mono"
        hint="End it with /* to include all addresses below it."
        fault={from.trim().length > 1 && !read.success ? read.error.issues[0]!.message : undefined}
        value={from}
        onChange={(event) => setFrom(event.target.value)}
      />
      <div className="flex flex-col gap-2">
        <PageField
          label="Leads to"
          value={to}
          placeholder="Choose where"
          others={ELSEWHERE}
          isOffered={(row) => derived.addresses[row] !== null}
          onChoose={(next) => setTo(next as typeof to)}
        />
        {to === 'outside' && (
          <TextField label="Outside address" value={url} onChange={(event) => setUrl(event.target.value)} />
        )}
      </div>
      <Button type="submit" look="main" disabled={!isReady} className="@xl:mt-6">
        Make the redirect
      </Button>
    </form>
  );
}
