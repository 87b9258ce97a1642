import { X } from 'lucide-react';
import type { PageId } from '#core/model/ids.ts';
import { mayGive } from '#core/people/forbidden.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import { IconButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { branchName, roleMay } from './role-words.ts';

/** A role for a place; those that may do more than whoever gives them cannot be chosen. */
export function RoleChoice({
  label,
  roles,
  page,
  value,
  withNone = false,
  onChoose,
}: {
  readonly label: string;
  readonly roles: readonly Role[];
  readonly page: PageId | null;
  /** Null for no role. */
  readonly value: RoleId | null;
  readonly withNone?: boolean;
  readonly onChoose: (role: RoleId | null) => void;
}) {
  const { site, powers } = useWorkbench();
  const chosen = roles.find((role) => role.id === value);
  return (
    <Choice
      label={label}
      value={value ?? ''}
      hint={
        chosen ? roleMay(chosen) : 'No role: the page tree shows, and no texts can be read outside the branches below.'
      }
      onChange={(event) => onChoose(event.target.value === '' ? null : (event.target.value as RoleId))}
    >
      {withNone && <option value="">No role</option>}
      {roles.map((role) => (
        <option key={role.id} value={role.id} disabled={role.id !== value && !mayGive(site, powers, role, page)}>
          {role.name}
        </option>
      ))}
    </Choice>
  );
}

/** The role in a branch, which can be taken away. */
export function BranchRole({
  roles,
  page,
  value,
  onChoose,
}: {
  readonly roles: readonly Role[];
  readonly page: PageId;
  readonly value: RoleId;
  /** Null takes it away. */
  readonly onChoose: (role: RoleId | null) => void;
}) {
  const branch = branchName(useWorkbench().site, page);
  return (
    <div role="group" aria-label={`In ${branch}`} className="flex items-start gap-2">
      <div className="min-w-0 flex-1">
        <RoleChoice label={`Role in ${branch}`} roles={roles} page={page} value={value} onChoose={onChoose} />
      </div>
      <IconButton name={`Remove the role in ${branch}`} className="mt-6" onClick={() => onChoose(null)}>
        <X size={16} aria-hidden />
      </IconButton>
    </div>
  );
}
