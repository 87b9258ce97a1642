import { KeyRound } from 'lucide-react';
import { useState } from 'react';
import { addPasskey, removePasskey, useSignInWays } from '../api/account.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Part } from './account-part.tsx';
import { AskPassword } from './ask-password.tsx';
import { hasPasskeys, passkeyWords } from './passkeys-here.ts';
import { toast } from '../ui/toast.ts';

/** Passkeys: what somebody signs in with in place of a password and a code. */
export function Passkeys() {
  const ways = useSignInWays();
  const [name, setName] = useState('');
  const [isAsking, setAsking] = useState(false);
  const [leaving, setLeaving] = useState<string | null>(null);
  if (!ways) return null;
  const add = async (password: string) => {
    try {
      await addPasskey(name.trim(), password);
      setName('');
      setAsking(false);
    } catch (fault) {
      if (fault instanceof Error && fault.name === 'NotAllowedError') return setAsking(false);
      const words = passkeyWords(fault);
      if (words === null) throw fault;
      toast.error(words);
    }
  };
  return (
    <Part
      title="Passkeys"
      lead="Sign in with your fingerprint, your face or the PIN of your device, without password or code."
    >
      {ways.passkeys.length > 0 && (
        <ul aria-label="Passkeys" className="divide-y divide-rule rounded-md border border-rule bg-raised">
          {ways.passkeys.map((passkey) => (
            <li key={passkey.id} className="flex items-center gap-3 px-3 py-2">
              <KeyRound size={16} aria-hidden className="shrink-0 text-quiet" />
              <span className="min-w-0 flex-1">
                <span className="block font-medium wrap-anywhere">{passkey.name}</span>
                <span className="block text-small text-quiet">
                  {passkey.lastUsedAt === null ? 'Not used yet' : `Last used on ${dayWords(passkey.lastUsedAt)}`}
                </span>
              </span>
              <Button onClick={() => setLeaving(passkey.id)}>
                Remove <span className="sr-only">{passkey.name}</span>…
              </Button>
            </li>
          ))}
        </ul>
      )}
      {leaving !== null && (
        <AskPassword
          words="Remove the passkey"
          onLeave={() => setLeaving(null)}
          onGiven={async (password) => {
            await removePasskey(leaving, password);
            setLeaving(null);
          }}
        />
      )}
      {!hasPasskeys() ? (
        <p className="text-small text-quiet">
          Browsers make passkeys for named hosts only. Open this workbench by its name, such as localhost, in place of
          its number.
        </p>
      ) : isAsking ? (
        <AskPassword words="Make the passkey" onLeave={() => setAsking(false)} onGiven={add} />
      ) : (
        <form
          aria-label="A new passkey"
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') setAsking(true);
          }}
        >
          <div className="flex-1">
            <TextField
              label="Add a passkey"
              placeholder="Work laptop"
              maxLength={60}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={name.trim() === ''}>
            Add…
          </Button>
        </form>
      )}
    </Part>
  );
}
