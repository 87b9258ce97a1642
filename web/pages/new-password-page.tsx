import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
import { askForPasswordBody } from '#contract/people.ts';
import { call, wordsOfFault } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { EntryFrame } from './entry-frame.tsx';

/** Asks for a mail to choose a new password by. What it says is the same whether there is such an account or not. */
export function NewPasswordPage() {
  const [sentTo, setSentTo] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(askForPasswordBody),
    defaultValues: { email: '' },
  });
  const submit = handleSubmit(async ({ email }) => {
    setFault(null);
    await call('askForPassword', {}, { email }).then(
      () => setSentTo(email),
      (reason: unknown) => setFault(wordsOfFault(reason)),
    );
  });
  return (
    <EntryFrame
      title="Choose a new password"
      lead={
        sentTo === null
          ? 'You get a mail with a link that works once, within an hour.'
          : `If ${sentTo} belongs to an account, a mail is on its way.`
      }
    >
      {sentTo === null && (
        <form onSubmit={(event) => void submit(event)} noValidate className="mb-4 flex flex-col gap-4">
          {fault && <Notice>{fault}</Notice>}
          <TextField
            label="Mail address"
            type="email"
            autoComplete="username"
            fault={formState.errors.email?.message}
            {...register('email')}
          />
          <Button type="submit" look="main" disabled={formState.isSubmitting} className="h-10 self-start">
            Send the mail
          </Button>
        </form>
      )}
      <Link to="/sign-in" className="text-small text-accent hover:underline">
        Back to the sign-in
      </Link>
    </EntryFrame>
  );
}
