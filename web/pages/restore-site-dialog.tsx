import { useState } from 'react';
import { useNavigate } from 'react-router';
import { siteKeySchema } from '#core/model/ids.ts';
import { ServerProblem, wordsOfFault } from '../api/client.ts';
import { useSession } from '../api/session.ts';
import { restoreSite } from '../api/sites.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';

/** So many of the things that are wrong with a file are listed. */
const MAX_LISTED = 8;

/** Makes a site of an archive: of a file with a whole site and its history. */
export function RestoreSiteDialog({ onClose }: { readonly onClose: () => void }) {
  const liveOrigin = useSession()?.liveOrigin ?? '';
  const navigate = useNavigate();
  const [file, setFile] = useState<File | null>(null);
  const [key, setKey] = useState('');
  const [name, setName] = useState('');
  const [fault, setFault] = useState<{ words: string; more: readonly string[] } | null>(null);
  const [isBusy, setBusy] = useState(false);
  const parsed = siteKeySchema.safeParse(key);
  const take = (next: File | undefined) => {
    if (!next) return;
    setFault(null);
    setFile(next);
    // The file is called by the key of the site that it was taken of.
    const proposed = siteKeySchema.safeParse(next.name.replace(/-archive.*$|\.(?:json|zip).*$/, ''));
    if (key === '' && proposed.success) setKey(proposed.data);
  };
  const restore = async () => {
    if (!file || !parsed.success) return;
    setFault(null);
    setBusy(true);
    try {
      const site = await restoreSite(parsed.data, name, file);
      await navigate(`/sites/${site.key}`);
    } catch (problem) {
      const errors = problem instanceof ServerProblem ? (problem.problem.errors ?? []) : [];
      setFault({ words: wordsOfFault(problem), more: errors.slice(1, MAX_LISTED).map(({ detail }) => detail) });
      setBusy(false);
    }
  };
  return (
    <Dialog
      title="Restore a site"
      description="From an archive: ‘The whole site with its history and files’ under Import and export. It becomes a new site; the existing ones stay as they are."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={!file || !parsed.success || isBusy} onClick={() => void restore()}>
            {isBusy ? 'Reading the archive …' : 'Restore the site'}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-4 pb-2">
        {fault && (
          <Notice>
            {fault.words}
            {fault.more.length > 0 && (
              <ul className="mt-1 list-disc pl-5">
                {fault.more.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            )}
          </Notice>
        )}
        <TextField
          label="The archive"
          type="file"
          accept=".zip,.json,.gz"
          onChange={(event) => take(event.target.files?.[0])}
        />
        <TextField
          label="Name"
          value={name}
          maxLength={120}
          hint="Empty: the name that it has in the archive."
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          label="Key"
          className="font-mono"
          value={key}
          hint={`The first step of its live address: ${liveOrigin}/${key || '…'}/`}
          fault={key !== '' && !parsed.success ? parsed.error.issues[0]?.message : undefined}
          onChange={(event) => setKey(event.target.value)}
        />
      </div>
    </Dialog>
  );
}
