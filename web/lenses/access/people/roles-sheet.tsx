import { BadgeCheck, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { PERMISSIONS, PERMISSION_WORDS, type Permission, has, hasAllOf } from '#core/model/permission.ts';
import { MAX_ROLE_NAME_LENGTH, type Role, type RoleId, isShipped, permissionsOf } from '#core/people/role.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { removeRole, setRole, useColleagues } from '../../../api/people.ts';
import { newRoleId } from '../../../api/site-store.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { Button } from '../../../ui/button.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { roleMay } from './role-words.ts';
import { toast } from '../../../ui/toast.ts';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** The roles of the site: named sets of permissions. */
export const ROLES: AskedKind = {
  edits: 'people',
  title: 'Roles',
  one: 'role',
  Sign: BadgeCheck,
  description:
    'Named sets of permissions. Five come with every site and stay as they are; make others as you need them.',
  useItems: useRoles,
  List: Roles,
  One: OneRole,
};

function useRoles(): readonly (Role & Named)[] | undefined {
  const { site } = useWorkbench();
  return useColleagues(site.key)?.roles;
}

function Roles() {
  const { site, mayEdit, setBeside } = useWorkbench();
  const answer = useColleagues(site.key);
  const [name, setName] = useState('');
  if (!answer) return <p className="text-quiet">Loading …</p>;
  const make = () => {
    const id = newRoleId();
    void setRole(site.key, { id, name: name.trim(), permissions: ['read'] }).then(
      () => setBeside({ kind: 'roles', id }),
      tell,
    );
  };
  return (
    <div className="flex flex-col gap-3">
      <ListOfSettings label="Roles">
        {answer.roles.map((role) => {
          const count = answer.colleagues.filter(({ roles }) => roles.some((one) => one.role === role.id)).length;
          return (
            <ListedItem
              key={role.id}
              to={{ kind: 'roles', id: role.id }}
              sign={<BadgeCheck size={16} aria-hidden />}
              name={role.name}
              says={`${roleMay(role)}${count > 0 ? ` · ${count} ${count === 1 ? 'colleague' : 'colleagues'}` : ''}`}
            />
          );
        })}
      </ListOfSettings>
      {mayEdit && (
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') make();
          }}
        >
          <div className="flex-1">
            <TextField
              label="Make a role"
              placeholder="Menu keeper"
              maxLength={MAX_ROLE_NAME_LENGTH}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <Button type="submit" disabled={name.trim() === ''}>
            Make
          </Button>
        </form>
      )}
    </div>
  );
}

function OneRole({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site, powers, mayEdit } = useWorkbench();
  const answer = useColleagues(site.key);
  const role = answer?.roles.find((one) => one.id === id);
  if (!answer || !role) return null;
  const having = answer.colleagues.filter(({ roles }) => roles.some((one) => one.role === role.id));
  const held = powers.onSite?.permissions ?? 0;
  const isFixed = isShipped(role.id);
  const mayChange = mayEdit && !isFixed && hasAllOf(held, permissionsOf(role));
  const save = (change: Partial<Role>) => void setRole(site.key, { ...role, ...change }).catch(tell);
  const granted = permissionsOf(role);
  const toggle = (permission: Permission) =>
    save({
      permissions: role.permissions.includes(permission)
        ? role.permissions.filter((one) => one !== permission)
        : [...role.permissions, permission],
    });
  const remove = () => void removeRole(site.key, role.id as RoleId).then(onGone, tell);
  return (
    <div className="flex flex-col gap-4">
      {isFixed && (
        <p className="rounded-sm bg-sunken px-2 py-1 text-small text-quiet">
          Every site has this role, and it stays as it is.
        </p>
      )}
      <fieldset disabled={!mayChange} className="flex min-w-0 flex-col gap-3">
        {!isFixed && (
          <DraftField
            label="Name"
            saved={role.name}
            longest={MAX_ROLE_NAME_LENGTH}
            onSave={(name) => name.trim() !== '' && save({ name: name.trim() })}
          />
        )}
        <fieldset className="flex flex-col gap-2">
          <legend className="mb-1 text-small font-medium">Whoever has it may</legend>
          {PERMISSIONS.map((permission) => (
            <Tick
              key={permission}
              label={PERMISSION_WORDS[permission].name}
              hint={`${sentence(PERMISSION_WORDS[permission].may)}.`}
              checked={has(granted, permission)}
              disabled={
                permission === 'read' ||
                !has(held, permission) ||
                (permission !== 'everything' && role.permissions.includes('everything'))
              }
              onChange={() => toggle(permission)}
            />
          ))}
        </fieldset>
      </fieldset>
      <p className="text-small text-quiet">
        {having.length === 0 ? 'No colleague has this role.' : `${having.map(({ name }) => name).join(', ')}.`}
      </p>
      {mayChange && having.length === 0 && (
        <Button look="quiet" className="self-start" onClick={remove}>
          <Trash2 size={15} aria-hidden /> Remove this role
        </Button>
      )}
    </div>
  );
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
