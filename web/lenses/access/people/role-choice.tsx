import type { PageId } from '#core/model/ids.ts';
import { mayGive } from '#core/people/forbidden.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import { Choice } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { roleMay } from './role-words.ts';

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
