import { useState } from 'react';
import type { SiteSummary } from '#contract/api.ts';
import { wordsOfFault } from '../api/client.ts';
import { renameSite } from '../api/sites.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';

export function RenameSiteDialog({
  site,
  onClose,
}: {
  readonly site: Pick<SiteSummary, 'key' | 'name'>;
  readonly onClose: () => void;
}) {
  const [name, setName] = useState(site.name);
  const [fault, setFault] = useState<string>();
  const submit = async () => {
    try {
      await renameSite(site.key, name);
      onClose();
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  };
  return (
    <Dialog
      title="Rename the site"
      description="Visitors see the new name with the next release. The site’s key and addresses stay as they are."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form="rename-site">
            Rename
          </Button>
        </>
      }
    >
      <form
        id="rename-site"
        className="pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <TextField
          label="Name"
          value={name}
          maxLength={120}
          autoFocus
          fault={fault}
          onChange={(event) => setName(event.target.value)}
        />
      </form>
    </Dialog>
  );
}
