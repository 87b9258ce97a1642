import { zodResolver } from '@hookform/resolvers/zod';
import { KeyRound } from 'lucide-react';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, useSearchParams } from 'react-router';
import { signInBody } from '#contract/api.ts';
import { codeBody } from '#contract/people.ts';
import { PROBLEMS, type ProblemCode, problemSentence } from '#contract/problems.ts';
import { hasPasskeys } from '../account/passkeys-here.ts';
import { wordsOfFault } from '../api/client.ts';
import { giveCode, signIn, signInByPasskey, signOut, useSession } from '../api/session.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { EntryFrame } from './entry-frame.tsx';

export function SignInPage() {
  return useSession()?.wantsCode ? <CodePage /> : <PasswordPage />;
}

function PasswordPage() {
  const provider = useSession()?.provider ?? null;
  const [parameters] = useSearchParams();
  const [fault, setFault] = useState<string | null>(() => refusedWords(parameters.get('refused'), provider));
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(signInBody),
    defaultValues: { email: '', password: '' },
  });
  const submit = handleSubmit(async ({ email, password }) => {
    setFault(null);
    await signIn(email, password).catch((reason: unknown) => setFault(wordsOfFault(reason)));
  });
  const byPasskey = () => {
    setFault(null);
    // Whoever leaves the browser’s own dialog is told nothing.
    signInByPasskey().catch((reason: unknown) => {
      if (!(reason instanceof Error) || reason.name !== 'NotAllowedError') setFault(wordsOfFault(reason));
    });
  };
  return (
    <EntryFrame title="Sign in" lead="One page tree. Menus, trails and addresses keep up with it.">
      <form onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4">
        {fault && <Notice>{fault}</Notice>}
        <TextField
          label="Mail address"
          type="email"
          autoComplete="username webauthn"
          fault={formState.errors.email?.message}
          {...register('email')}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          fault={formState.errors.password?.message}
          {...register('password')}
        />
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit" look="main" disabled={formState.isSubmitting} className="h-10">
            Sign in
          </Button>
          {hasPasskeys() && (
            <Button className="h-10" onClick={byPasskey}>
              <KeyRound size={16} aria-hidden /> Use a passkey
            </Button>
          )}
        </div>
        {provider !== null && (
          <a href="/api/session/provider" className="self-start text-accent hover:underline">
            Sign in with {provider}
          </a>
        )}
        <Link to="/password" className="self-start text-small text-accent hover:underline">
          Choose a new password
        </Link>
      </form>
    </EntryFrame>
  );
}

/** Why the provider of the organisation did not sign somebody in, in words; null where nothing is said. */
function refusedWords(code: string | null, provider: string | null): string | null {
  return code !== null && code in PROBLEMS
    ? problemSentence(code as ProblemCode, { name: provider ?? 'the provider' })
    : null;
}

function CodePage() {
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(codeBody),
    defaultValues: { code: '' },
  });
  const submit = handleSubmit(async ({ code }) => {
    setFault(null);
    await giveCode(code).catch((reason: unknown) => setFault(wordsOfFault(reason)));
  });
  return (
    <EntryFrame
      title="One more step"
      lead="Type the code that your authenticator shows, or one of your recovery codes."
    >
      <form onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4">
        {fault && <Notice>{fault}</Notice>}
        <TextField
          label="Code"
          autoComplete="one-time-code"
          inputMode="text"
          // The code is all that is asked for here.

          autoFocus
          className="font-mono"
          fault={formState.errors.code?.message}
          {...register('code')}
        />
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit" look="main" disabled={formState.isSubmitting} className="h-10">
            Sign in
          </Button>
          <Button look="quiet" className="h-10" onClick={() => void signOut()}>
            Sign in as somebody else
          </Button>
        </div>
      </form>
    </EntryFrame>
  );
}
