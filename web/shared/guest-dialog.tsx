import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { guestBody } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { nameGuest } from '../api/shared-plan.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';

/** Asks under which name somebody comments, before the first thing that they say. */
export function GuestDialog({
  token,
  onNamed,
  onClose,
}: {
  readonly token: string;
  readonly onNamed: () => void;
  readonly onClose: () => void;
}) {
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(guestBody),
    defaultValues: { name: '', email: '' },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await nameGuest(token, given).then(
      () => {
        onClose();
        onNamed();
      },
      (problem: unknown) => setFault(wordsOfFault(problem)),
    );
  });
  return (
    <Dialog
      title="What is your name?"
      description="Your verdicts and comments appear under this name. The makers of the plan and anyone with this link can read them."
      isOpen
      onClose={onClose}
    >
      <form noValidate onSubmit={(event) => void submit(event)} className="flex flex-col gap-3 pb-3">
        {fault && <Notice>{fault}</Notice>}
        <TextField
          label="Your name"
          autoComplete="name"
          maxLength={80}
          fault={formState.errors.name?.message}
          {...register('name')}
        />
        <TextField
          label="Mail address (optional)"
          type="email"
          autoComplete="email"
          hint="We send answers to your comments there. Only the makers of the plan can see it."
          fault={formState.errors.email?.message}
          {...register('email')}
        />
        <Button type="submit" look="main" disabled={formState.isSubmitting} className="self-start">
          Use this name
        </Button>
      </form>
    </Dialog>
  );
}
