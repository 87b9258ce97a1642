import { Copy, Link2Off } from 'lucide-react';
import { useState } from 'react';
import type { AudienceId } from '#core/model/audience.ts';
import type { JoiningLinkAnswer } from '#contract/visitors.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { makeJoiningLink, removeJoiningLink, useJoiningLinks } from '../../../api/visitors.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Choice, TextField, Tick } from '../../../ui/field.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** Links by which visitors join an audience by themselves, each with its end and its limit. */
export function JoiningLinks() {
  const { site } = useWorkbench();
  const links = useJoiningLinks(site.key);
  if (site.settings.audiences.length === 0)
    return <p className="text-quiet">A link lets visitors join an audience. Add one under Audiences first.</p>;
  return (
    <div className="flex flex-col gap-4">
      <p className="text-quiet">
        Anyone with the link types a mail address, gets a mail and joins through it. Mails go to the outbox.
      </p>
      {links === undefined ? (
        <p className="text-quiet">Loading …</p>
      ) : (
        links.length > 0 && (
          <ul aria-label="Joining links" className="flex flex-col gap-2">
            {links.map((link) => (
              <OneLink key={link.id} link={link} />
            ))}
          </ul>
        )
      )}
      <NewLink />
    </div>
  );
}

function OneLink({ link }: { readonly link: JoiningLinkAnswer }) {
  const { site } = useWorkbench();
  const now = useNow();
  const { audience, address, needsApproval, expiresAt, mostUses, uses, madeBy } = link;
  const name = site.settings.audiences.find(({ id }) => id === audience)?.name ?? 'an audience that is gone';
  const isOver = Date.parse(expiresAt) <= now || (mostUses !== null && uses >= mostUses);
  const words = [
    needsApproval ? 'you let each one in' : 'open to whoever has it',
    `${Date.parse(expiresAt) <= now ? 'ended' : 'ends'} on ${dayWords(expiresAt)}`,
    mostUses === null ? `used ${uses === 1 ? 'once' : `${uses} times`}` : `used ${uses} of ${mostUses} times`,
    `made by ${madeBy}`,
  ].join(' · ');
  return (
    <li
      aria-label={`Joining ${name}`}
      className={`rounded-md border px-4 py-3 ${isOver ? 'border-rule text-quiet' : 'border-edge'}`}
    >
      <div className="flex items-center gap-2">
        <p className="min-w-0 flex-1 truncate font-medium">Joins {name}</p>
        {!isOver && (
          <IconButton
            name="Copy the link"
            onClick={() =>
              void navigator.clipboard.writeText(address).then(
                () => toast('Link copied.', { duration: 3000 }),
                () => toast.error('The browser does not let Spur copy the link. Select it and copy it yourself.'),
              )
            }
          >
            <Copy size={16} aria-hidden />
          </IconButton>
        )}
        <IconButton
          name={`Withdraw the link that joins ${name}`}
          onClick={() => void removeJoiningLink(site.key, link.id).catch(tell)}
        >
          <Link2Off size={16} aria-hidden />
        </IconButton>
      </div>
      {!isOver && (
        <input
          readOnly
          aria-label={`The link that joins ${name}`}
          value={address}
          onFocus={(event) => event.target.select()}
          className="mt-1 w-full truncate rounded bg-sunken px-2 py-1 font-mono text-small"
        />
      )}
      <p className="mt-1.5 text-small text-quiet first-letter:uppercase">{words}</p>
    </li>
  );
}

function NewLink() {
  const { site } = useWorkbench();
  const { audiences } = site.settings;
  const [audience, setAudience] = useState<AudienceId>(audiences[0]!.id);
  const [days, setDays] = useState('30');
  const [most, setMost] = useState('');
  const [needsApproval, setNeedsApproval] = useState(false);
  const isSound =
    /^\d{1,3}$/.test(days) && Number(days) > 0 && (most === '' || (/^\d{1,5}$/.test(most) && Number(most) > 0));
  return (
    <form
      aria-label="A new joining link"
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        const body = { audience, needsApproval, days: Number(days), mostUses: most === '' ? null : Number(most) };
        void makeJoiningLink(site.key, body).catch(tell);
      }}
    >
      <div className="grid gap-3 @lg:grid-cols-3">
        <Choice
          label="Joins the audience"
          value={audience}
          onChange={(event) => setAudience(event.target.value as AudienceId)}
        >
          {audiences.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        <TextField
          label="Expires after (days)"
          inputMode="numeric"
          value={days}
          onChange={(event) => setDays(event.target.value)}
        />
        <TextField
          label="At most (people)"
          inputMode="numeric"
          placeholder="Any number"
          value={most}
          onChange={(event) => setMost(event.target.value)}
        />
      </div>
      <Tick
        label="I approve each person"
        hint="Until then they have an account, but do not belong to the audience."
        checked={needsApproval}
        onChange={() => setNeedsApproval(!needsApproval)}
      />
      <div>
        <Button type="submit" look="main" disabled={!isSound}>
          Make a joining link
        </Button>
      </div>
    </form>
  );
}
