import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { type AccountLinkAnswer, MIN_PASSWORD_LENGTH, useAccountLinkBody } from '#contract/people.ts';
import { call, wordsOfFault } from '../api/client.ts';
import { takeAccountLink } from '../api/session.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { EntryFrame } from './entry-frame.tsx';

/** Where the link of a mail leads: an invitation is taken up, or a new password is chosen. */
export function JoinPage() {
  const token = window.location.hash.slice(1);
  const [link, setLink] = useState<AccountLinkAnswer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    call('openAccountLink', {}, { token }).then(setLink, (reason: unknown) => setFault(wordsOfFault(reason)));
  }, [token]);
  if (fault)
    return (
      <EntryFrame title="This link does not open anything" lead="">
        <Notice>{fault}</Notice>
        <Link to="/sign-in" className="mt-4 inline-block text-accent underline">
          To the sign-in
        </Link>
      </EntryFrame>
    );
  if (!link) return <p className="p-6 text-quiet">Loading …</p>;
  return <Join token={token} link={link} />;
}

function Join({ token, link }: { readonly token: string; readonly link: AccountLinkAnswer }) {
  const { purpose, name, email, site } = link;
  const isInvited = purpose === 'invitation';
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(useAccountLinkBody),
    defaultValues: { token, name, password: '' },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await takeAccountLink(given).then(
      () => void navigate('/sites', { replace: true }),
      (reason: unknown) => setFault(wordsOfFault(reason)),
    );
  });
  const { errors } = formState;
  return (
    <EntryFrame
      title={isInvited ? `Welcome to ${site ?? 'Spur'}` : 'Choose a new password'}
      lead={
        isInvited
          ? 'You have been made a colleague. Say what you are called, and choose a password.'
          : 'With it you are signed in here, and signed out everywhere else.'
      }
    >
      <form onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4">
        {fault && <Notice>{fault}</Notice>}
        <p className="text-quiet">{email}</p>
        {/* Password keepers look for whom a password is. */}
        <input type="hidden" autoComplete="username" value={email} />
        {isInvited && (
          <TextField label="Your name" autoComplete="name" fault={errors.name?.message} {...register('name')} />
        )}
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          hint={`At least ${MIN_PASSWORD_LENGTH} characters, and none of the well-known ones. Several words are good.`}
          fault={errors.password?.message}
          {...register('password')}
        />
        <Button type="submit" look="main" disabled={formState.isSubmitting} className="h-10 self-start">
          {isInvited ? 'Begin' : 'Keep this password'}
        </Button>
      </form>
    </EntryFrame>
  );
}
