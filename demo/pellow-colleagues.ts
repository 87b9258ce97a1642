import { type Role, type RoleId, roleIdSchema } from '#core/people/role.ts';

/** A role that the school has made: whoever looks after the menus, and nothing else. */
export const PELLOW_ROLE: Role = {
  id: roleIdSchema.parse('menus-only'),
  name: 'Menu keeper',
  permissions: ['read', 'comment', 'menus'],
};

interface DemoColleague {
  readonly name: string;
  readonly email: string;
  /** On the whole site for `null`, else in the branch below a page, by its title. */
  readonly roles: readonly { readonly role: RoleId; readonly in: string | null }[];
  readonly isInvited?: boolean;
  readonly isSuspended?: boolean;
}

const role = (id: string, title: string | null = null) => ({ role: roleIdSchema.parse(id), in: title });

/** Who works on the school's site, besides those who look after the installation. */
export const PELLOW_COLLEAGUES: readonly DemoColleague[] = [
  { name: 'Oona Trask', email: 'oona@pellow-quay.example', roles: [role('reader')] },
  {
    name: 'Mira Sand',
    email: 'mira@pellow-quay.example',
    roles: [role('reader'), role('editor', 'Courses')],
  },
  {
    name: 'Teo Brandt',
    email: 'teo@pellow-quay.example',
    roles: [role('reader'), role('publisher', 'News')],
  },
  { name: 'Lis Ardern', email: 'lis@pellow-quay.example', roles: [role('menus-only')] },
  // An outsider who writes for a while, and reads nothing else.
  { name: 'Kofi Marlow', email: 'kofi@words.example', roles: [role('writer', 'Boats built')] },
  {
    name: 'Wanda Pryce',
    email: 'wanda@pellow-quay.example',
    roles: [role('editor'), role('reader', 'Governors')],
    isInvited: true,
  },
];
