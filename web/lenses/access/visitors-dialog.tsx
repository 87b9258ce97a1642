import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { accessTable } from '#core/derive/access.ts';
import { closureOf } from '#core/model/audience.ts';
import { type VisitorAnswer, makeVisitorBody } from '#contract/visitors.ts';
import { wordsOfFault } from '../../api/client.ts';
import { makeVisitor, removeVisitor, setVisitor, useVisitors } from '../../api/visitors.ts';
import { dayWords } from '../../tree/plan-words.tsx';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { TextField, Tick } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** The accounts of the site's visitors: who they are, which audiences they are in, and what they can open. */
export function VisitorsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site } = useWorkbench();
  const visitors = useVisitors(site.key);
  const [asked, setAsked] = useState('');
  const [isNew, setNew] = useState(false);
  const wanted = asked.trim().toLowerCase();
  const shown = (visitors ?? []).filter(({ name, email }) => `${name} ${email}`.toLowerCase().includes(wanted));
  return (
    <Dialog
      title="Visitors"
      description="Accounts of those who visit the site; they open nothing in this workbench. What you change here holds at once."
      isOpen
      isWide
      onClose={onClose}
      actions={<Button onClick={onClose}>Close</Button>}
    >
      <div className="flex flex-col gap-3 pb-2">
        <div className="flex items-end gap-2">
          <div className="flex-1">
            <TextField
              label="Find by name or mail address"
              value={asked}
              onChange={(event) => setAsked(event.target.value)}
            />
          </div>
          <Button look="main" onClick={() => setNew(!isNew)} aria-expanded={isNew}>
            New visitor…
          </Button>
        </div>
        {isNew && <NewVisitor onMade={() => setNew(false)} />}
        {visitors === undefined ? (
          <p className="text-quiet">Loading …</p>
        ) : shown.length === 0 ? (
          <p className="text-quiet">
            {visitors.length === 0 ? 'Nobody has an account yet.' : 'Nobody has that in their name or address.'}
          </p>
        ) : (
          <ul aria-label="Visitors" className="divide-y divide-rule border-y border-rule">
            {shown.map((one) => (
              <OneVisitor key={one.id} visitor={one} />
            ))}
          </ul>
        )}
      </div>
    </Dialog>
  );
}

function OneVisitor({ visitor }: { readonly visitor: VisitorAnswer }) {
  const { site, derived } = useWorkbench();
  const now = useNow();
  const [isAsked, setAsked] = useState(false);
  const { id, name, email, audiences, isSuspended, lastSignInAt } = visitor;
  const { outline } = derived;
  const { open } = accessTable(outline, [closureOf(site.settings.audiences, audiences)], now);
  const reach = outline.nodes.filter((node, row) => node.type === 'page' && open[row] === 1).length;
  const set = (fields: Parameters<typeof setVisitor>[2]) => void setVisitor(site.key, id, fields).catch(tell);
  return (
    <li aria-label={name} className="py-2.5">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <p className={`font-medium ${isSuspended ? 'text-quiet line-through' : ''}`}>{name}</p>
        <p className="text-small text-quiet">{email}</p>
        <p className="ml-auto text-small text-quiet">
          {isSuspended ? 'Suspended' : `Can open ${pages(reach)} of the draft`} ·{' '}
          {lastSignInAt === null ? 'not signed in yet' : `signed in last on ${dayWords(lastSignInAt)}`}
        </p>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        {site.settings.audiences.map((audience) => (
          <Tick
            key={audience.id}
            label={audience.name}
            checked={audiences.includes(audience.id)}
            onChange={() =>
              set({
                audiences: audiences.includes(audience.id)
                  ? audiences.filter((one) => one !== audience.id)
                  : [...audiences, audience.id],
              })
            }
          />
        ))}
        <span className="ml-auto flex items-center gap-1">
          <Button look="quiet" isTight onClick={() => set({ isSuspended: !isSuspended })}>
            {isSuspended ? 'Let in again' : 'Suspend'}
          </Button>
          {isAsked ? (
            <Button look="danger" onClick={() => void removeVisitor(site.key, id).catch(tell)}>
              Remove {name}
            </Button>
          ) : (
            <Button look="quiet" isTight onClick={() => setAsked(true)}>
              Remove…
            </Button>
          )}
        </span>
      </div>
    </li>
  );
}

function NewVisitor({ onMade }: { readonly onMade: () => void }) {
  const { site } = useWorkbench();
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(makeVisitorBody),
    defaultValues: { name: '', email: '', password: '', audiences: [] },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await makeVisitor(site.key, given).then(onMade, (problem: unknown) => setFault(wordsOfFault(problem)));
  });
  const { errors } = formState;
  return (
    <form
      noValidate
      aria-label="A new visitor"
      onSubmit={(event) => void submit(event)}
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
    >
      {fault && <Notice>{fault}</Notice>}
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField label="Name" fault={errors.name?.message} {...register('name')} />
        <TextField label="Mail address" type="email" fault={errors.email?.message} {...register('email')} />
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          fault={errors.password?.message}
          {...register('password')}
        />
      </div>
      {site.settings.audiences.length > 0 && (
        <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
          <legend className="mb-1 text-small font-medium">In the audiences</legend>
          {site.settings.audiences.map(({ id, name }) => (
            <Tick key={id} label={name} value={id} {...register('audiences')} />
          ))}
        </fieldset>
      )}
      <div>
        <Button type="submit" look="main" disabled={formState.isSubmitting}>
          Make the account
        </Button>
      </div>
    </form>
  );
}
