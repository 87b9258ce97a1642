import { Mail } from 'lucide-react';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { dateFormatter } from '#core/model/formatters.ts';
import { AccountMenu } from '../account/account-menu.tsx';
import { useOutbox } from '../api/sharing.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { Wordmark } from '../ui/wordmark.tsx';

/** The mails that Spur has sent: this installation has no mail server, so they are read here. */
export function OutboxPage() {
  const mails = useOutbox();
  const [chosen, setChosen] = useState<string | null>(null);
  const open = mails?.find(({ id }) => id === chosen) ?? mails?.[0];
  return (
    <div className="flex h-full flex-col">
      <header className="flex min-h-bar items-center gap-3 border-b border-rule bg-raised px-4">
        <Link to="/sites" aria-label="Spur, all sites">
          <Wordmark size={22} />
        </Link>
        <div className="ml-auto">
          <AccountMenu />
        </div>
      </header>
      <main className="flex min-h-0 flex-1 flex-col gap-4 px-4 py-6 md:px-10">
        <div>
          <h1 className="font-display text-display leading-tight font-semibold tracking-tight">Outbox</h1>
          <p className="mt-1 text-quiet">
            This installation has no mail server. Mails that would have been sent appear here, for those who look after
            the installation.
          </p>
        </div>
        {mails === undefined ? (
          <p className="text-quiet">Loading …</p>
        ) : mails.length === 0 ? (
          <p className="flex items-center gap-2 text-quiet">
            <Mail size={18} aria-hidden /> No mail yet. Invitations to a shared plan and answers to comments appear
            here.
          </p>
        ) : (
          <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 md:grid-cols-[22rem_minmax(0,1fr)]">
            <ul
              aria-label="Mails"
              className="min-h-0 overflow-y-auto rounded-md border border-rule bg-raised max-md:max-h-72"
            >
              {mails.map((mail) => (
                <li key={mail.id} className="border-b border-rule last:border-0">
                  <button
                    type="button"
                    aria-current={mail.id === open?.id ? 'true' : undefined}
                    onClick={() => setChosen(mail.id)}
                    className={`w-full px-3 py-2 text-left ${mail.id === open?.id ? 'bg-accent-soft' : 'hover:bg-sunken'}`}
                  >
                    <span className="flex gap-2 text-small text-quiet">
                      <span className="min-w-0 flex-1 truncate">{mail.to}</span>
                      <span className="shrink-0">{dayWords(mail.at)}</span>
                    </span>
                    <span className="block truncate font-medium">{mail.subject}</span>
                  </button>
                </li>
              ))}
            </ul>
            {open && (
              <article className="min-h-0 overflow-y-auto rounded-md border border-rule bg-raised px-5 py-4">
                <h2 className="font-display text-title leading-tight font-semibold">{open.subject}</h2>
                <p className="mt-1 mb-4 text-small text-quiet">
                  To {open.to},{' '}
                  {dateFormatter('en-GB', { dateStyle: 'long', timeStyle: 'short' }).format(new Date(open.at))}
                </p>
                <p className="max-w-prose break-words whitespace-pre-wrap">
                  <Linked text={open.text} />
                </p>
              </article>
            )}
          </div>
        )}
      </main>
    </div>
  );
}

const ADDRESS = /(https?:\/\/\S+)/;

/** A text in which addresses can be followed. */
function Linked({ text }: { readonly text: string }) {
  return text.split(ADDRESS).map((part, at) =>
    ADDRESS.test(part) ? (
      <a key={at} href={part} className="text-accent underline">
        {part}
      </a>
    ) : (
      <Fragment key={at}>{part}</Fragment>
    ),
  );
}
