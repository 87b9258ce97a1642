import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { makeShareBody } from '#contract/sharing.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { addressesIn, makeShare } from '../../../api/sharing.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice, TextArea, TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

const LASTS = [
  { days: 7, words: 'One week' },
  { days: 14, words: 'Two weeks' },
  { days: 30, words: '30 days' },
  { days: 90, words: '90 days' },
] as const;

/** The form as it is typed; what is sent is made of it, and checked by the contract. */
const typedSchema = z
  .object({ name: z.string(), days: z.string(), passphrase: z.string(), invite: z.string(), letter: z.string() })
  .transform(({ days, passphrase, invite, ...rest }): z.input<typeof makeShareBody> => ({
    ...rest,
    days: Number(days),
    ...(passphrase !== '' && { passphrase }),
    invite: addressesIn(invite),
  }))
  .pipe(makeShareBody);

/** Makes a link: whom it is for, how long it works, whether it asks for a passphrase, who is invited. */
export function NewShare({
  onMade,
  onCancel,
}: {
  readonly onMade: () => void;
  /** Null where there is nothing to go back to. */
  readonly onCancel: (() => void) | null;
}) {
  const { site } = useWorkbench();
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState, getValues } = useForm({
    resolver: zodResolver(typedSchema),
    defaultValues: { name: '', days: '14', passphrase: '', invite: '', letter: '' },
  });
  const submit = handleSubmit(async (given) => {
    setFault(null);
    await makeShare(site.key, given).then(onMade, (problem: unknown) => setFault(wordsOfFault(problem)));
  });
  const { errors } = formState;
  // A fault in the list of addresses is that of one of them.
  const wrong = Array.isArray(errors.invite) ? errors.invite.findIndex(Boolean) : -1;
  const inviteFault =
    wrong === -1
      ? errors.invite?.message
      : `‘${addressesIn(getValues('invite'))[wrong]}’ is not a mail address; it should look like you@school.example.`;
  return (
    <form
      aria-label="A new link"
      noValidate
      onSubmit={(event) => void submit(event)}
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
    >
      {fault && <Notice>{fault}</Notice>}
      <div className="grid gap-3 @sm:grid-cols-[minmax(0,1fr)_9rem]">
        <TextField
          label="For whom"
          placeholder="The governors"
          maxLength={80}
          fault={errors.name?.message}
          {...register('name')}
        />
        <Choice label="Works for" fault={errors.days?.message} {...register('days')}>
          {LASTS.map(({ days, words }) => (
            <option key={days} value={days}>
              {words}
            </option>
          ))}
        </Choice>
      </div>
      <TextField
        label="Passphrase (optional)"
        hint="Send it another way; the invitation does not contain it."
        autoComplete="off"
        fault={errors.passphrase?.message}
        {...register('passphrase')}
      />
      <TextField
        label="Invite by mail (optional)"
        hint="Addresses with commas between them. You can also copy the link and send it yourself."
        fault={inviteFault}
        {...register('invite')}
      />
      <TextArea
        label="What the invitation says (optional)"
        rows={2}
        maxLength={4000}
        fault={errors.letter?.message}
        {...register('letter')}
      />
      <div className="flex gap-2">
        <Button type="submit" look="main" disabled={formState.isSubmitting}>
          Make the link
        </Button>
        {onCancel && <Button onClick={onCancel}>Cancel</Button>}
      </div>
    </form>
  );
}
