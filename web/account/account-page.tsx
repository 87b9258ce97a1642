import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { momentWords } from '#core/model/moment-words.ts';
import { MIN_PASSWORD_LENGTH } from '#contract/people.ts';
import { changePassword, endSession, useOwnSecurityLog, useOwnSessions } from '../api/account.ts';
import { wordsOfFault } from '../api/client.ts';
import { setOwnName, useSession } from '../api/session.ts';
import { DraftField } from '../fields/draft-field.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { AccountMenu } from './account-menu.tsx';
import { Part } from './account-part.tsx';
import { OneTimeCodes } from './one-time-codes.tsx';
import { Passkeys } from './passkeys.tsx';
import { SecurityLog } from './security-log.tsx';
import { toast } from '../ui/toast.ts';

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** What somebody sets for themselves: name, password, second step, and where they are signed in. */
export function AccountPage() {
  const account = useSession()?.account;
  useEffect(() => {
    document.title = 'Account – Spur';
  }, []);
  if (!account) return null;
  return (
    <div className="flex min-h-full flex-col">
      <header className="flex min-h-bar items-center gap-3 border-b border-rule bg-raised px-4">
        <Link to="/sites" aria-label="Spur, all sites">
          <Wordmark size={22} />
        </Link>
        <div className="ml-auto">
          <AccountMenu />
        </div>
      </header>
      <main className="mx-auto w-full max-w-5xl flex-1 px-4 py-8">
        <h1 className="font-display text-display leading-tight font-semibold tracking-tight">Account</h1>
        <p className="mt-1 text-quiet">{account.email}</p>
        <div className="mt-6 grid gap-x-10 gap-y-8 md:grid-cols-2">
          <div className="flex min-w-0 flex-col gap-8">
            <Part title="Name" lead="Colleagues see it beside what you do.">
              <DraftField
                label="Name"
                saved={account.name}
                longest={100}
                onSave={(name) => {
                  if (name.trim() !== '')
                    setOwnName(name.trim()).catch((fault: unknown) => toast.error(wordsOfFault(fault)));
                }}
              />
            </Part>
            <Part title="Password" lead="When it changes, your other sessions end.">
              <Password />
            </Part>
            <OneTimeCodes />
            <Passkeys />
          </div>
          <div className="flex min-w-0 flex-col gap-8">
            <Sessions />
            <Log />
          </div>
        </div>
      </main>
    </div>
  );
}

function Password() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const change = async () => {
    setFault(null);
    await changePassword(current, password).then(
      () => {
        setCurrent('');
        setPassword('');
        toast('Password changed.');
      },
      (reason: unknown) => setFault(wordsOfFault(reason)),
    );
  };
  return (
    <form
      aria-label="Change the password"
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void change();
      }}
    >
      {fault && <Notice>{fault}</Notice>}
      <TextField
        label="Current password"
        type="password"
        autoComplete="current-password"
        value={current}
        onChange={(event) => setCurrent(event.target.value)}
      />
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        hint={`At least ${MIN_PASSWORD_LENGTH} characters, and none of the well-known ones.`}
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button type="submit" className="self-start" disabled={current === '' || password.length < MIN_PASSWORD_LENGTH}>
        Change the password
      </Button>
    </form>
  );
}

function Sessions() {
  const sessions = useOwnSessions();
  const end = (id: string) => endSession(id).catch((fault: unknown) => void toast.error(wordsOfFault(fault)));
  return (
    <Part title="Where you are signed in">
      {sessions === undefined ? (
        <p className="text-quiet">Loading …</p>
      ) : (
        <>
          <ul aria-label="Sessions" className="divide-y divide-rule rounded-md border border-rule bg-raised">
            {sessions.map(({ id, since, browser, isThis }) => (
              <li key={id} className="flex items-center gap-3 px-3 py-2">
                <span className="min-w-0 flex-1">
                  <span className="block font-medium">{browser || 'An unknown browser'}</span>
                  <span className="block text-small text-quiet">
                    {isThis ? 'This one' : since === null ? '' : `Since ${momentWords(since, HERE)}`}
                  </span>
                </span>
                {!isThis && <Button onClick={() => void end(id)}>End</Button>}
              </li>
            ))}
          </ul>
          {sessions.length > 1 && (
            <Button className="self-start" onClick={() => void end('others')}>
              End all others
            </Button>
          )}
        </>
      )}
    </Part>
  );
}

function Log() {
  const entries = useOwnSecurityLog();
  return (
    <Part title="What happened with your account">
      {entries === undefined ? <p className="text-quiet">Loading …</p> : <SecurityLog entries={entries} isOwn />}
    </Part>
  );
}
