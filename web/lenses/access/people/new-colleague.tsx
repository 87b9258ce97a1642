import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { PageId } from '#core/model/ids.ts';
import { childrenOf } from '#core/model/site.ts';
import type { RoleAt } from '#core/people/powers.ts';
import { READER, type Role, type RoleId } from '#core/people/role.ts';
import { inviteColleagueBody } from '#contract/people.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { inviteColleague } from '../../../api/people.ts';
import { PageField } from '../../../fields/page-field.tsx';
import { Button } from '../../../ui/button.tsx';
import { TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { RoleChoice } from './role-choice.tsx';

const who = inviteColleagueBody.pick({ name: true, email: true });
const NO_BRANCH = { value: 'none', words: 'No branch' };

/** Invites somebody by mail, with a role on the whole site, on a branch, or on both. */
export function NewColleague({
  roles,
  onMade,
}: {
  readonly roles: readonly Role[];
  readonly onMade: (colleague: string) => void;
}) {
  const { site, may, chosen } = useWorkbench();
  const isForSite = may('people', null);
  const [onSite, setOnSite] = useState<RoleId | null>(isForSite ? READER.id : null);
  const [branch, setBranch] = useState<PageId | null>(
    () => chosen.find((page) => may('people', page) && childrenOf(site, page).length > 0) ?? null,
  );
  const [inBranch, setInBranch] = useState<RoleId>(roles[1]?.id ?? READER.id);
  const [fault, setFault] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(who),
    defaultValues: { name: '', email: '' },
  });
  const rolesAt: RoleAt[] = [
    ...(onSite === null ? [] : [{ page: null, role: onSite }]),
    ...(branch === null ? [] : [{ page: branch, role: inBranch }]),
  ];
  const submit = handleSubmit(async ({ name, email }) => {
    setFault(null);
    await inviteColleague(site.key, { name, email, roles: rolesAt }).then(
      ({ colleagues }) => {
        const made = colleagues.find((one) => one.email.toLowerCase() === email.toLowerCase());
        if (made) onMade(made.id);
      },
      (problem: unknown) => setFault(wordsOfFault(problem)),
    );
  });
  const { errors } = formState;
  return (
    <form
      noValidate
      aria-label="A new colleague"
      onSubmit={(event) => void submit(event)}
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
    >
      {fault && <Notice>{fault}</Notice>}
      <div className="grid gap-3 @lg:grid-cols-2">
        <TextField label="Name" autoComplete="off" fault={errors.name?.message} {...register('name')} />
        <TextField
          label="Mail address"
          type="email"
          autoComplete="off"
          fault={errors.email?.message}
          {...register('email')}
        />
      </div>
      {isForSite && (
        <RoleChoice
          label="Role on the whole site"
          roles={roles}
          page={null}
          value={onSite}
          withNone
          onChoose={setOnSite}
        />
      )}
      <PageField
        label="Branch"
        hint="The role below holds for this page and all below it."
        value={branch ?? NO_BRANCH.value}
        others={[NO_BRANCH]}
        isOffered={(_, page) => may('people', page)}
        onChoose={(next) => setBranch(next === NO_BRANCH.value ? null : (next as PageId))}
      />
      {branch !== null && (
        <RoleChoice
          label="Role in the branch"
          roles={roles}
          page={branch}
          value={inBranch}
          onChoose={(role) => role !== null && setInBranch(role)}
        />
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button type="submit" look="main" disabled={formState.isSubmitting || rolesAt.length === 0}>
          Send the invitation
        </Button>
        <span className="text-small text-quiet">
          {rolesAt.length === 0
            ? 'Choose at least one role.'
            : 'A mail with a link that works once, within seven days.'}
        </span>
      </div>
    </form>
  );
}
