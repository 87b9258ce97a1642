import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { withoutTrailing } from '#core/model/cut-text.ts';
import { slugFromTitle } from '#core/model/slug.ts';
import { fetchTransliteration } from '#core/model/transliterate-later.ts';
import { makeSiteBody } from '#contract/api.ts';
import { wordsOfFault } from '../api/client.ts';
import { useSession } from '../api/session.ts';
import { makeSite } from '../api/sites.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';

const body = makeSiteBody.pick({ key: true, name: true });

/** Makes a site: the key is proposed from the name until somebody types another one. */
export function MakeSiteDialog({ onClose }: { readonly onClose: () => void }) {
  const [fault, setFault] = useState<string | null>(null);
  const liveOrigin = useSession()?.liveOrigin ?? '';
  const navigate = useNavigate();
  const form = useForm({ resolver: zodResolver(body), defaultValues: { name: '', key: '' } });
  const { errors, isSubmitting, dirtyFields } = form.formState;
  const key = form.watch('key');
  const submit = form.handleSubmit(async (given) => {
    setFault(null);
    try {
      const site = await makeSite(given);
      await navigate(`/sites/${site.key}`);
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  });
  // Where the tables cannot be fetched, the key that is proposed is a guess; it can be changed like any other.
  useEffect(() => void fetchTransliteration().catch(() => undefined), []);
  const name = form.register('name', {
    onChange: (event: { target: { value: string } }) => {
      const typed = event.target.value;
      if (!dirtyFields.key)
        form.setValue('key', typed.trim() === '' ? '' : withoutTrailing(slugFromTitle(typed).slice(0, 40), '-'));
    },
  });
  return (
    <Dialog
      title="New site"
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form="make-site" disabled={isSubmitting}>
            Create the site
          </Button>
        </>
      }
    >
      <form id="make-site" onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4 pb-2">
        {fault && <Notice>{fault}</Notice>}
        <TextField label="Name" placeholder="Harbour Street Library" autoFocus fault={errors.name?.message} {...name} />
        <TextField
          label="Key"
          className="font-mono"
          hint={`The first step of its live address: ${liveOrigin}/${key || '…'}/`}
          fault={errors.key?.message}
          {...form.register('key')}
        />
      </form>
    </Dialog>
  );
}
