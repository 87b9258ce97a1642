import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { signInBody } from '#contract/api.ts';
import { wordsOfFault } from '../api/client.ts';
import { signIn } from '../api/session.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { EntryFrame } from './entry-frame.tsx';

export function SignInPage() {
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(signInBody),
    defaultValues: { email: '', password: '' },
  });
  const submit = handleSubmit(async ({ email, password }) => {
    setFault(null);
    await signIn(email, password).catch((reason: unknown) => setFault(wordsOfFault(reason)));
  });
  return (
    <EntryFrame title="Sign in" lead="One page tree. Menus, trails and addresses keep up with it.">
      <form onSubmit={(event) => void submit(event)} noValidate className="flex flex-col gap-4">
        {fault && <Notice>{fault}</Notice>}
        <TextField
          label="Mail address"
          type="email"
          autoComplete="username"
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
        <Button type="submit" look="main" disabled={formState.isSubmitting} className="h-10 self-start">
          Sign in
        </Button>
      </form>
    </EntryFrame>
  );
}
