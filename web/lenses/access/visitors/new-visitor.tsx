import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { makeVisitorBody } from '#contract/visitors.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { makeVisitor } from '../../../api/visitors.ts';
import { Button } from '../../../ui/button.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** The form for an account that the manager makes by hand. */
export function NewVisitor({ onMade }: { readonly onMade: () => void }) {
  const { site } = useWorkbench();
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(makeVisitorBody),
    defaultValues: { name: '', email: '', password: '', audiences: [] },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await makeVisitor(site.key, given).then(onMade, (problem: unknown) => setFault(wordsOfFault(problem)));
  });
  const { errors } = formState;
  return (
    <form
      noValidate
      aria-label="A new visitor"
      onSubmit={(event) => void submit(event)}
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
    >
      {fault && <Notice>{fault}</Notice>}
      <div className="grid gap-3 @lg:grid-cols-3">
        <TextField label="Name" fault={errors.name?.message} {...register('name')} />
        <TextField label="Mail address" type="email" fault={errors.email?.message} {...register('email')} />
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          fault={errors.password?.message}
          {...register('password')}
        />
      </div>
      {site.settings.audiences.length > 0 && (
        <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
          <legend className="mb-1 text-small font-medium">In the audiences</legend>
          {site.settings.audiences.map(({ id, name }) => (
            <Tick key={id} label={name} value={id} {...register('audiences')} />
          ))}
        </fieldset>
      )}
      <div>
        <Button type="submit" look="main" disabled={formState.isSubmitting}>
          Create the account
        </Button>
      </div>
    </form>
  );
}
