import qrcode from 'qrcode-generator';
import { useMemo, useState } from 'react';
import { beginCodes, confirmCodes, endCodes, useSignInWays } from '../api/account.ts';
import { wordsOfFault } from '../api/client.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { Part } from './account-part.tsx';
import { AskPassword } from './ask-password.tsx';

/** One-time codes of an authenticator, besides the password: set up with a first code, and left again. */
export function OneTimeCodes() {
  const ways = useSignInWays();
  const [begun, setBegun] = useState<{ secret: string; address: string } | null>(null);
  const [recoveryCodes, setRecoveryCodes] = useState<readonly string[] | null>(null);
  const [isAsking, setAsking] = useState(false);
  if (!ways) return null;
  const isOn = ways.codesSince !== null;
  return (
    <Part
      title="One-time codes"
      lead={
        isOn
          ? `Asked for since ${dayWords(ways.codesSince!)}, besides your password. ${ways.recoveryCodes} recovery codes are left.`
          : 'A code of an authenticator on your telephone, besides your password.'
      }
    >
      {recoveryCodes && <RecoveryCodes codes={recoveryCodes} onKept={() => setRecoveryCodes(null)} />}
      {begun && (
        <Confirm
          {...begun}
          onDone={(codes) => {
            setBegun(null);
            setRecoveryCodes(codes);
          }}
        />
      )}
      {isAsking ? (
        <AskPassword
          words={isOn ? 'Sign in without codes again' : 'Go on'}
          onLeave={() => setAsking(false)}
          onGiven={async (password) => {
            if (isOn) await endCodes(password);
            else setBegun(await beginCodes(password));
            setAsking(false);
          }}
        />
      ) : (
        !begun && (
          <Button className="self-start" onClick={() => setAsking(true)}>
            {isOn ? 'Sign in without codes…' : 'Set up one-time codes…'}
          </Button>
        )
      )}
    </Part>
  );
}

function Confirm({
  secret,
  address,
  onDone,
}: {
  readonly secret: string;
  readonly address: string;
  readonly onDone: (recoveryCodes: readonly string[]) => void;
}) {
  const [code, setCode] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const picture = useMemo(() => {
    const made = qrcode(0, 'M');
    made.addData(address);
    made.make();
    return made.createDataURL(4, 12);
  }, [address]);
  return (
    <form
      aria-label="Confirm the codes"
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        setFault(null);
        confirmCodes(code).then(onDone, (reason: unknown) => setFault(wordsOfFault(reason)));
      }}
    >
      <div className="flex flex-wrap items-center gap-4">
        <img
          src={picture}
          alt="The key as a picture, for the camera of your authenticator"
          className="size-36 rounded-sm bg-white"
        />
        <p className="min-w-40 flex-1">
          Let your authenticator read the picture, or type this key into it:
          <span className="mt-1 block font-mono text-small wrap-anywhere">{secret.match(/.{1,4}/g)?.join(' ')}</span>
        </p>
      </div>
      {fault && <Notice>{fault}</Notice>}
      <TextField
        label="The code that it shows"
        autoComplete="one-time-code"
        inputMode="numeric"
        className="font-mono"
        value={code}
        onChange={(event) => setCode(event.target.value)}
      />
      <Button type="submit" look="main" className="self-start" disabled={code.trim().length < 6}>
        Ask for codes from now on
      </Button>
    </form>
  );
}

function RecoveryCodes({ codes, onKept }: { readonly codes: readonly string[]; readonly onKept: () => void }) {
  return (
    <section aria-label="Recovery codes" className="flex flex-col gap-3 rounded-md border border-attention px-4 py-3">
      <p>
        Keep these codes where you find them without your telephone. Each opens your account once, in place of a code of
        the authenticator. They are shown this one time.
      </p>
      <ul className="grid grid-cols-2 gap-x-6 gap-y-0.5 font-mono">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button onClick={() => void navigator.clipboard.writeText(codes.join('\n'))}>Copy them</Button>
        <Button look="main" onClick={onKept}>
          I have kept them
        </Button>
      </div>
    </section>
  );
}
