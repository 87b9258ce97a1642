import { AppWindow, X } from 'lucide-react';
import { useState } from 'react';
import { frameHostSchema } from '#core/model/frame-host.ts';
import { hostOfFrame } from '#core/sections/frame.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The hosts whose players, maps and forms pages may show in a frame. */
export const HOSTS: WholeKind = {
  edits: 'everything',
  title: 'Hosts of outside frames',
  Sign: AppWindow,
  description:
    'Pages show players, maps and forms of these hosts in their place, once a visitor asks for one. What stands on any other host is a link. It holds for visitors with the next release.',
  Whole: Hosts,
};

function Hosts() {
  const { site, store, mayEdit } = useWorkbench();
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const { hosts } = site.settings;
  const set = (next: readonly string[]) => store.apply([{ name: 'site.set', fields: { hosts: [...next] } }]);
  const allow = () => {
    // A whole address does as well.
    const host = hostOfFrame(typed.trim()) ?? typed.trim().toLowerCase();
    const { error } = frameHostSchema.safeParse(host);
    setFault(error ? 'A host is named as in an address, such as player.example.' : null);
    if (error) return;
    if (!hosts.includes(host)) set([...hosts, host]);
    setTyped('');
  };
  return (
    <div className="flex flex-col gap-4">
      {hosts.length === 0 ? (
        <p className="text-quiet">No host is allowed yet.</p>
      ) : (
        <ul aria-label="Allowed hosts" className="divide-y divide-rule rounded-md border border-rule bg-raised">
          {hosts.map((host) => (
            <li key={host} className="flex items-center gap-2 py-1 pr-1 pl-3">
              <span className="min-w-0 flex-1 truncate font-mono">{host}</span>
              {mayEdit && (
                <IconButton name={`Allow ${host} no longer`} onClick={() => set(hosts.filter((one) => one !== host))}>
                  <X size={15} aria-hidden />
                </IconButton>
              )}
            </li>
          ))}
        </ul>
      )}
      {mayEdit && (
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (typed.trim() !== '') allow();
          }}
        >
          <TextField
            label="Another host"
            value={typed}
            placeholder="player.example"
            fault={fault ?? undefined}
            className="flex-1"
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button look="main" type="submit" disabled={typed.trim() === ''}>
            Allow it
          </Button>
        </form>
      )}
    </div>
  );
}
