import { format } from 'date-fns';
import { useState } from 'react';
import { siteKeySchema } from '#core/model/ids.ts';
import type { DeletedSite } from '#contract/deleted-sites.ts';
import { wordsOfFault } from '../api/client.ts';
import { bringBackSite, eraseSite, useDeletedSites } from '../api/sites.ts';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { toast } from '../ui/toast.ts';

const dayOf = (moment: string): string => format(new Date(moment), 'd MMMM yyyy');

/** The deleted sites that are still kept, each with the way back; nothing where there are none. */
export function DeletedSites() {
  const sites = useDeletedSites(true);
  const [returning, setReturning] = useState<DeletedSite | null>(null);
  const [erased, setErased] = useState<DeletedSite | null>(null);
  if (sites.length === 0) return null;
  return (
    <section aria-labelledby="deleted-sites" className="mt-10">
      <h2 id="deleted-sites" className="mb-2 font-display text-title font-semibold">
        Deleted sites
      </h2>
      <ul className="divide-y divide-rule rounded-lg border border-rule">
        {sites.map((site) => (
          <li key={site.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3">
            <p className="min-w-0 flex-1">
              <span className="font-medium">{site.name}</span>{' '}
              <span className="font-mono text-small text-quiet">{site.key}</span>
              <span className="block text-small text-quiet">
                {pages(site.pages)}. Deleted on {dayOf(site.deletedAt)}
                {site.deletedBy && ` by ${site.deletedBy}`}; kept until {dayOf(site.keptUntil)}.
              </span>
            </p>
            <Button onClick={() => setReturning(site)}>Bring back…</Button>
            <Button look="quiet" onClick={() => setErased(site)}>
              Delete for good…
            </Button>
          </li>
        ))}
      </ul>
      {returning && <BringBackDialog site={returning} onClose={() => setReturning(null)} />}
      {erased && <EraseDialog site={erased} onClose={() => setErased(null)} />}
    </section>
  );
}

interface DialogProps {
  readonly site: DeletedSite;
  readonly onClose: () => void;
}

function BringBackDialog({ site, onClose }: DialogProps) {
  const [name, setName] = useState(site.name);
  const [key, setKey] = useState(site.key);
  const [fault, setFault] = useState<string>();
  const parsed = siteKeySchema.safeParse(key);
  const submit = async () => {
    if (!parsed.success) return;
    try {
      await bringBackSite(site.id, { key: parsed.data, name });
      toast(`‘${name}’ is back.`);
      onClose();
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  };
  return (
    <Dialog
      title={`Bring back ‘${site.name}’`}
      description="With its tree, its texts, its history, and what visitors had of it."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form="bring-back" disabled={!parsed.success || name.trim() === ''}>
            Bring it back
          </Button>
        </>
      }
    >
      <form
        id="bring-back"
        className="flex flex-col gap-3 pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <TextField label="Name" value={name} maxLength={120} onChange={(event) => setName(event.target.value)} />
        <TextField
          label="Key"
          className="font-mono"
          value={key}
          hint="The first step of its live address."
          fault={fault ?? (parsed.success ? undefined : parsed.error.issues[0]?.message)}
          onChange={(event) => {
            setFault(undefined);
            setKey(event.target.value);
          }}
        />
      </form>
    </Dialog>
  );
}

function EraseDialog({ site, onClose }: DialogProps) {
  const [fault, setFault] = useState<string>();
  const erase = () =>
    eraseSite(site.id).then(onClose, (reason: unknown) => {
      setFault(wordsOfFault(reason));
    });
  return (
    <Dialog
      title={`Delete ‘${site.name}’ for good`}
      description={`Its ${pages(site.pages)}, texts and history cannot be brought back after that.`}
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="danger" onClick={() => void erase()}>
            Delete it for good
          </Button>
        </>
      }
    >
      {fault && <p className="pb-2 text-danger">{fault}</p>}
    </Dialog>
  );
}
