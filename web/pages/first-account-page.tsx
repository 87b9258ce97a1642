import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { firstAccountBody } from '#contract/api.ts';
import { wordsOfFault } from '../api/client.ts';
import { makeFirstAccount } from '../api/session.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { EntryFrame } from './entry-frame.tsx';

export function FirstAccountPage() {
  const [fault, setFault] = useState<string | null>(null);
  const token = window.location.hash.slice(1);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(firstAccountBody),
    defaultValues: { token, name: '', email: '', password: '' },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await makeFirstAccount(given).catch((reason: unknown) => setFault(wordsOfFault(reason)));
  });
  const { errors } = formState;
  return (
    <EntryFrame title="Create the first account" lead="It has full access: sites, pages and what goes live.">
      <form onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4">
        {(fault || token === '') && (
          <Notice>
            {fault ?? 'The link is incomplete. Copy all of it from the window in which Spur was started.'}
          </Notice>
        )}
        <TextField label="Your name" autoComplete="name" fault={errors.name?.message} {...register('name')} />
        <TextField
          label="Mail address"
          type="email"
          autoComplete="username"
          fault={errors.email?.message}
          {...register('email')}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters."
          fault={errors.password?.message}
          {...register('password')}
        />
        <Button type="submit" look="main" disabled={formState.isSubmitting || token === ''} className="h-10 self-start">
          Create the account
        </Button>
      </form>
    </EntryFrame>
  );
}
