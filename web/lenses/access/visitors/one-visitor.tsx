import { Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { audienceNames } from '#core/derive/reason-words.ts';
import { touchedByOpening } from '#core/derive/touched.ts';
import { closureOf } from '#core/model/audience.ts';
import type { VisitorAnswer } from '#contract/visitors.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { removeVisitor, setVisitor, useVisitors } from '../../../api/visitors.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { MarkedRows } from '../../../settings/marked-rows.tsx';
import { marksOfTouched } from '../../../settings/through-words.ts';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { useLookedAt } from '../../../workbench/use-looked-at.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** One account: who it is, the audiences, what it can open, marked in the tree, and what can be done with it. */
export function OneVisitor({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const visitor = useVisitors(site.key)?.find((one) => one.id === id);
  return visitor ? <Account visitor={visitor} onGone={onGone} /> : null;
}

function Account({ visitor, onGone }: { readonly visitor: VisitorAnswer; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const [isAsked, setAsked] = useState(false);
  const { id, name, email, audiences, askedFor, isSuspended, isFromDirectory, lastSignInAt } = visitor;
  const set = (fields: Parameters<typeof setVisitor>[2]) => void setVisitor(site.key, id, fields).catch(tell);
  const remove = () => removeVisitor(site.key, id).then(onGone, tell);
  return (
    <div className="flex flex-col gap-4">
      {askedFor.length > 0 && (
        <p className="flex flex-wrap items-center gap-2 rounded-md bg-attention-soft px-3 py-2">
          <span className="flex-1">Wants to join {audienceNames(site, askedFor)}.</span>
          <Button
            look="main"
            onClick={() => set({ audiences: [...new Set([...audiences, ...askedFor])], askedFor: [] })}
          >
            Let {name} in
          </Button>
          <Button onClick={() => set({ askedFor: [] })}>Decline</Button>
        </p>
      )}
      {isSuspended ? (
        <p className="rounded-md bg-attention-soft px-3 py-2">The account is suspended: it cannot sign in.</p>
      ) : (
        <WhatOpens visitor={visitor} />
      )}
      <DraftField
        label="Name"
        saved={name}
        longest={100}
        onSave={(next) => next.trim() !== '' && set({ name: next.trim() })}
      />
      <p>
        {email}
        <span className="block text-small text-quiet">
          {isFromDirectory && 'From the directory. '}
          {lastSignInAt === null ? 'Has not signed in yet.' : `Last signed in on ${dayWords(lastSignInAt)}.`}
        </span>
      </p>
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
        <legend className="mb-1 text-small font-medium">Belongs to</legend>
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
        {site.settings.audiences.length === 0 && <p className="text-quiet">This site has no audiences yet.</p>}
      </fieldset>
      <div className="flex flex-wrap items-center gap-2 border-t border-rule pt-3">
        <Button onClick={() => set({ isSuspended: !isSuspended })}>{isSuspended ? 'Restore access' : 'Suspend'}</Button>
        {isAsked ? (
          <Button look="danger" onClick={() => void remove()}>
            Remove {name}
          </Button>
        ) : (
          <Button look="quiet" onClick={() => setAsked(true)}>
            <Trash2 size={15} aria-hidden /> Remove…
          </Button>
        )}
      </div>
    </div>
  );
}

/** What an account can open of the draft. */
function WhatOpens({ visitor: { name, audiences } }: { readonly visitor: VisitorAnswer }) {
  const { site, derived } = useWorkbench();
  const at = useLookedAt();
  const touched = useMemo(
    () => touchedByOpening(site, derived.outline, closureOf(site.settings.audiences, audiences), at),
    [site, derived, audiences, at],
  );
  useMarkRows(useMemo(() => marksOfTouched(site, name, touched), [site, name, touched]));
  const own = [...touched.values()].filter((through) => through !== 'everyone').length;
  return (
    <MarkedRows count={touched.size}>
      Can open {pages(touched.size)} of the draft
      <span className="text-quiet">
        {own === 0 ? ', all of them open to everyone' : `, ${own} of them not open to everyone`}
      </span>
      .
    </MarkedRows>
  );
}
