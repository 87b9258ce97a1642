import { useState } from 'react';
import { wordsOfFault } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';

/** Asks for the password once more, before how somebody signs in is changed. */
export function AskPassword({
  words,
  onGiven,
  onLeave,
}: {
  /** What is done with it. */
  readonly words: string;
  /** Where it fails, the reason is said here. */
  readonly onGiven: (password: string) => Promise<void>;
  readonly onLeave: () => void;
}) {
  const [password, setPassword] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      aria-label="Your password"
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        setFault(null);
        onGiven(password).catch((reason: unknown) => setFault(wordsOfFault(reason)));
      }}
    >
      {fault && <Notice>{fault}</Notice>}
      <TextField
        label="Your password"
        type="password"
        autoComplete="current-password"
        // It was asked for a moment ago.
        autoFocus
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <div className="flex gap-2">
        <Button type="submit" look="main" disabled={password === ''}>
          {words}
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
      </div>
    </form>
  );
}
