import { useState } from 'react';
import type { SiteSummary } from '#contract/api.ts';
import { DAYS_KEPT } from '#contract/deleted-sites.ts';
import { wordsOfFault } from '../api/client.ts';
import { deleteSite } from '../api/sites.ts';
import { pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { toast } from '../ui/toast.ts';

/** Deletes a site once its name has been typed, after saying what that means. */
export function DeleteSiteDialog({ site, onClose }: { readonly site: SiteSummary; readonly onClose: () => void }) {
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string>();
  const isSame = typed.trim() === site.name.trim();
  const submit = async () => {
    try {
      await deleteSite(site.key, typed);
      toast(`‘${site.name}’ was deleted. It can be brought back for ${DAYS_KEPT} days.`);
      onClose();
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  };
  return (
    <Dialog
      title={`Delete ‘${site.name}’`}
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="danger" type="submit" form="delete-site" disabled={!isSame}>
            Delete the site
          </Button>
        </>
      }
    >
      <form
        id="delete-site"
        className="flex flex-col gap-3 pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (isSame) void submit();
        }}
      >
        <ul className="list-disc pl-5">
          <li>
            {site.livePages === 0
              ? 'Nothing of it is live, so visitors notice nothing.'
              : `Visitors no longer find its ${pages(site.livePages)} at ${site.liveAddress}`}
          </li>
          <li>Its tree of {pages(site.pages)}, its texts, visitors’ accounts and shared plans go along.</li>
          <li>Everything is kept for {DAYS_KEPT} days and can be brought back; its key is free at once.</li>
        </ul>
        <TextField
          label={`Type its name: ${site.name}`}
          value={typed}
          autoFocus
          autoComplete="off"
          fault={fault}
          onChange={(event) => setTyped(event.target.value)}
        />
      </form>
    </Dialog>
  );
}
