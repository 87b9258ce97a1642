import { useState } from 'react';
import { toast } from 'sonner';
import { accessTable } from '#core/derive/access.ts';
import { closureOf } from '#core/model/audience.ts';
import { textIn } from '#core/model/texts.ts';
import type { VisitorAnswer } from '#contract/visitors.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { removeVisitor, setVisitor } from '../../../api/visitors.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** One account: who it is, the audiences, what it reaches, and what can be done with it. */
export function OneVisitor({ visitor }: { readonly visitor: VisitorAnswer }) {
  const { site, derived } = useWorkbench();
  const now = useNow();
  const [isAsked, setAsked] = useState(false);
  const { id, name, email, audiences, askedFor, isSuspended, isFromDirectory, lastSignInAt } = visitor;
  const waitsFor = site.settings.audiences.filter((audience) => askedFor.includes(audience.id));
  const { outline } = derived;
  const { open } = accessTable(outline, site.settings, [closureOf(site.settings.audiences, audiences)], now);
  const reach = outline.nodes.filter((node, row) => node.type === 'page' && open[row] === 1);
  const [isReachShown, showReach] = useState(false);
  const set = (fields: Parameters<typeof setVisitor>[2]) => void setVisitor(site.key, id, fields).catch(tell);
  return (
    <li aria-label={name} className="py-2.5">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <p className={`font-medium ${isSuspended ? 'text-quiet line-through' : ''}`}>{name}</p>
        <p className="text-small text-quiet">{email}</p>
        <p className="ml-auto text-small text-quiet">
          {isSuspended ? (
            'Suspended'
          ) : (
            <button
              type="button"
              aria-expanded={isReachShown}
              className="text-accent underline"
              onClick={() => showReach(!isReachShown)}
            >
              Can open {pages(reach.length)} of the draft
            </button>
          )}{' '}
          {isFromDirectory && '· from the directory '}·{' '}
          {lastSignInAt === null ? 'not signed in yet' : `last signed in on ${dayWords(lastSignInAt)}`}
        </p>
      </div>
      {isReachShown && !isSuspended && (
        <div className="mt-1 max-h-40 overflow-y-auto rounded-md bg-sunken px-3 py-2 text-small">
          <ul aria-label={`What ${name} can open`} className="@sm:columns-2">
            {reach.map((node) => (
              <li key={node.id} className="truncate">
                {textIn(node.title, site.settings.language)}
              </li>
            ))}
          </ul>
        </div>
      )}
      {waitsFor.length > 0 && (
        <p className="mt-1 flex flex-wrap items-center gap-2 rounded-md bg-attention-soft px-3 py-1.5">
          <span className="mr-auto">Wants to join {waitsFor.map((audience) => audience.name).join(' and ')}.</span>
          <Button
            look="main"
            onClick={() => set({ audiences: [...new Set([...audiences, ...askedFor])], askedFor: [] })}
          >
            Let {name} in
          </Button>
          <Button onClick={() => set({ askedFor: [] })}>Decline</Button>
        </p>
      )}
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
            {isSuspended ? 'Restore access' : 'Suspend'}
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
