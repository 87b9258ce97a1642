import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Audience } from '#core/model/audience.ts';
import { LONGEST_AUDIENCE_NAME } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { newAudienceId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { Button, IconButton } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The audiences of the site: named sets of visitors, some of which take in others. */
export function AudiencesDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store, mayEdit } = useWorkbench();
  const { audiences } = site.settings;
  const [typed, setTyped] = useState('');
  const add = () => {
    if (typed.trim() === '') return;
    if (store.apply([{ name: 'audience.add', audience: newAudienceId(), title: typed }]) === null) setTyped('');
  };
  return (
    <Dialog
      title="Audiences"
      description="Everyone is built in. Other audiences are sets of visitors who sign in; one can take in those of another. They hold for visitors with the next release."
      isOpen
      isWide
      onClose={onClose}
      actions={<Button onClick={onClose}>Close</Button>}
    >
      <fieldset disabled={!mayEdit} className="flex flex-col gap-3 pb-2">
        {audiences.map((audience) => (
          <OneAudience key={audience.id} audience={audience} />
        ))}
        {mayEdit && (
          <form
            className="flex items-end gap-2 border-t border-rule pt-4 first:border-0 first:pt-0"
            onSubmit={(event) => {
              event.preventDefault();
              add();
            }}
          >
            <div className="flex-1">
              <TextField
                label={audiences.length === 0 ? 'The first audience' : 'Another audience'}
                placeholder="Staff"
                value={typed}
                maxLength={LONGEST_AUDIENCE_NAME}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <Button type="submit" look="main" disabled={typed.trim() === ''}>
              Add the audience
            </Button>
          </form>
        )}
      </fieldset>
    </Dialog>
  );
}

function OneAudience({ audience: { id, name, includes, landing } }: { readonly audience: Audience }) {
  const { site, store, derived } = useWorkbench();
  const { outline } = derived;
  const others = site.settings.audiences.filter((one) => one.id !== id);
  return (
    <section aria-label={name} className="rounded-md border border-rule px-4 py-3">
      <div className="flex items-start gap-3">
        <div className="flex-1">
          <DraftField
            label="Name"
            saved={name}
            longest={LONGEST_AUDIENCE_NAME}
            onSave={(title) =>
              title.trim() !== '' && store.apply([{ name: 'audience.set', audience: id, fields: { title } }])
            }
          />
        </div>
        <IconButton
          name={`Take away the audience ‘${name}’`}
          className="mt-6"
          onClick={() => store.apply([{ name: 'audience.remove', audience: id }])}
        >
          <Trash2 size={16} aria-hidden />
        </IconButton>
      </div>
      {others.length > 0 && (
        <fieldset className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
          <legend className="mb-1 text-small font-medium">It takes in everybody who is in</legend>
          {others.map((other) => (
            <Tick
              key={other.id}
              label={other.name}
              checked={includes.includes(other.id)}
              onChange={() => {
                const next = includes.includes(other.id)
                  ? includes.filter((one) => one !== other.id)
                  : [...includes, other.id];
                store.apply([{ name: 'audience.set', audience: id, fields: { includes: next } }]);
              }}
            />
          ))}
        </fieldset>
      )}
      <div className="mt-3">
        <Choice
          label="After signing in they go on to"
          hint="Unless they asked for a page before."
          value={landing ?? ''}
          onChange={(event) => {
            const next = event.target.value === '' ? null : (event.target.value as PageId);
            store.apply([{ name: 'audience.set', audience: id, fields: { landing: next } }]);
          }}
        >
          <option value="">The home page</option>
          {outline.nodes.map(
            (node, row) =>
              node.type === 'page' && (
                <option key={node.id} value={node.id}>
                  {'\u2003'.repeat(outline.depth[row]!) + textIn(node.title, site.settings.language)}
                </option>
              ),
          )}
        </Choice>
      </div>
    </section>
  );
}
