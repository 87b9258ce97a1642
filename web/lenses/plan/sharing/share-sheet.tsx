import { Copy, Link2Off, MailPlus, MessagesSquare } from 'lucide-react';
import { useState } from 'react';
import type { ShareAnswer } from '#contract/sharing.ts';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { addressesIn, inviteToShare, useShares, withdrawShare } from '../../../api/sharing.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { Button, IconButton } from '../../../ui/button.tsx';
import { TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { NewShare } from './new-share.tsx';
import { toast } from '../../../ui/toast.ts';

/** The links by which people without an account see the plan and say what they think of it. */
export const SHARING: WholeKind = {
  edits: 'people',
  title: 'Share the plan for comment',
  Sign: MessagesSquare,
  description:
    'Anyone with a link sees the tree and the plan without an account. They can give a verdict on each page, comment, and propose another title or place, but change nothing. They do not see your notes and questions.',
  needs: 'people',
  Whole: Shares,
};

function Shares() {
  const { site } = useWorkbench();
  const shares = useShares(site.key);
  const [isNew, setNew] = useState(false);
  const isMaking = isNew || shares?.length === 0;
  return (
    <div className="flex flex-col gap-4">
      {shares === undefined ? (
        <p className="text-quiet">Loading …</p>
      ) : (
        shares.length > 0 && (
          <ul aria-label="Links" className="flex flex-col gap-2">
            {shares.map((share) => (
              <OneShare key={share.id} share={share} />
            ))}
          </ul>
        )
      )}
      {isMaking ? (
        <NewShare onMade={() => setNew(false)} onCancel={shares?.length === 0 ? null : () => setNew(false)} />
      ) : (
        shares && (
          <div>
            <Button look="main" onClick={() => setNew(true)}>
              Make a link…
            </Button>
          </div>
        )
      )}
    </div>
  );
}

function OneShare({ share }: { readonly share: ShareAnswer }) {
  const { site } = useWorkbench();
  const [asked, setAsked] = useState<'withdraw' | 'invite' | null>(null);
  const isOpen = share.state === 'open';
  const link = window.location.origin + share.path;
  return (
    <li
      aria-label={share.name}
      className={`rounded-md border px-4 py-3 ${isOpen ? 'border-edge' : 'border-rule text-quiet'}`}
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <p className="min-w-0 flex-1 truncate font-medium">{share.name}</p>
        {isOpen && (
          <>
            <IconButton
              name="Copy the link"
              onClick={() =>
                void navigator.clipboard.writeText(link).then(
                  () => toast('Link copied.', { duration: 3000 }),
                  () => toast.error('The browser does not let Spur copy the link. Select it and copy it yourself.'),
                )
              }
            >
              <Copy size={16} aria-hidden />
            </IconButton>
            <IconButton name="Invite by mail…" onClick={() => setAsked(asked === 'invite' ? null : 'invite')}>
              <MailPlus size={16} aria-hidden />
            </IconButton>
            <IconButton name="Withdraw…" onClick={() => setAsked(asked === 'withdraw' ? null : 'withdraw')}>
              <Link2Off size={16} aria-hidden />
            </IconButton>
          </>
        )}
      </div>
      {isOpen && (
        <input
          readOnly
          aria-label={`The link for ${share.name}`}
          value={link}
          onFocus={(event) => event.target.select()}
          className="mt-1 w-full truncate rounded bg-sunken px-2 py-1 font-mono text-small"
        />
      )}
      <p className="mt-1.5 text-small text-quiet">{shareWords(share)}</p>
      {asked === 'withdraw' && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <span>It stops working at once and permanently. Comments stay.</span>
          <Button
            look="danger"
            onClick={() =>
              void withdrawShare(site.key, share.id).then(
                () => setAsked(null),
                (fault: unknown) => toast.error(wordsOfFault(fault)),
              )
            }
          >
            Withdraw the link
          </Button>
        </p>
      )}
      {asked === 'invite' && <Invite share={share} onDone={() => setAsked(null)} />}
    </li>
  );
}

function shareWords(share: ShareAnswer): string {
  const { state, expiresAt, madeBy, hasPassphrase, lastOpenedAt, guests, verdicts, comments } = share;
  const until = dayWords(expiresAt);
  return [
    state === 'withdrawn' ? 'Withdrawn' : state === 'over' ? `Expired on ${until}` : `Works until ${until}`,
    `made by ${madeBy}`,
    hasPassphrase && 'asks for a passphrase',
    lastOpenedAt === null ? 'not opened yet' : `last opened on ${dayWords(lastOpenedAt)}`,
    guests > 0 &&
      `${count(guests, 'person', 'people')}, ${count(verdicts, 'verdict', 'verdicts')}, ${count(comments, 'comment', 'comments')}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

const count = (number: number, one: string, more: string): string => `${number} ${number === 1 ? one : more}`;

function Invite({ share, onDone }: { readonly share: ShareAnswer; readonly onDone: () => void }) {
  const { site } = useWorkbench();
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const invite = addressesIn(typed);
  return (
    <form
      className="mt-2 flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        inviteToShare(site.key, share.id, { invite, letter: '' }).then(
          () => {
            toast(invite.length === 1 ? 'The invitation is sent.' : `${invite.length} invitations are sent.`);
            onDone();
          },
          (problem: unknown) => setFault(wordsOfFault(problem)),
        );
      }}
    >
      {fault && <Notice>{fault}</Notice>}
      <TextField
        label="Mail addresses"
        hint="With commas between them."
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <div>
        <Button type="submit" disabled={invite.length === 0}>
          {invite.length < 2 ? 'Send the invitation' : `Send ${invite.length} invitations`}
        </Button>
      </div>
    </form>
  );
}
