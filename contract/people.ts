import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { permissionSchema } from '#core/model/permission.ts';
import { roleIdSchema, roleSchema } from '#core/people/role.ts';

const moment = z.iso.datetime();
/** On the whole site, and on so many branches at most. */
export const MAX_ROLES_OF_ONE = 100;

/** A role that somebody has: on a branch, or on the whole site for `null`. */
export const roleAtSchema = z.strictObject({ page: pageIdSchema.nullable(), role: roleIdSchema });

/** One role for a place. */
const rolesAtSchema = z
  .array(roleAtSchema)
  .min(1, 'Give at least one role.')
  .max(MAX_ROLES_OF_ONE, `At most ${MAX_ROLES_OF_ONE} roles.`)
  .refine((roles) => new Set(roles.map(({ page }) => page)).size === roles.length, 'One role for each branch.');

export const colleagueIdSchema = z.uuid();

export const COLLEAGUE_STATES = ['here', 'invited', 'suspended'] as const;
export const colleagueSchema = z.object({
  id: colleagueIdSchema,
  name: z.string(),
  /** Empty for who may not look after colleagues. */
  email: z.string(),
  /** `invited` until the invitation has been taken up. */
  state: z.enum(COLLEAGUE_STATES),
  /** Null: never, or not for who may not look after colleagues. */
  lastSeen: moment.nullable(),
  roles: z.array(roleAtSchema),
  /** The places, of those above, whose role comes from the organisation's directory; null where it looks after nothing of theirs. */
  placesFromDirectory: z.array(pageIdSchema.nullable()).nullable(),
});
export type Colleague = z.infer<typeof colleagueSchema>;

export const colleaguesAnswer = z.object({
  colleagues: z.array(colleagueSchema),
  roles: z.array(roleSchema),
  /** The names of those who look after the installation, and so may do everything. */
  lookAfterAll: z.array(z.string()),
});
export type ColleaguesAnswer = z.infer<typeof colleaguesAnswer>;

/** The caller's own roles, each with what it lets them do. */
export const ownRolesAnswer = z.object({ roles: z.array(roleSchema), rolesAt: z.array(roleAtSchema) });
export type OwnRolesAnswer = z.infer<typeof ownRolesAnswer>;

const personName = z.string().trim().min(1, 'Type a name.').max(100, 'At most 100 characters.');
export const colleagueEmail = z.email('Type a mail address, such as name@school.example.').max(200);
export const inviteColleagueBody = z.strictObject({ name: personName, email: colleagueEmail, roles: rolesAtSchema });
export const setColleagueBody = z.strictObject({
  roles: rolesAtSchema.optional(),
  isSuspended: z.boolean().optional(),
});

export const setRoleBody = z.strictObject({
  name: roleSchema.shape.name,
  permissions: z.array(permissionSchema).max(20),
});
export const rolesAnswer = z.object({ roles: z.array(roleSchema) });

/** What is still to be done with a link from a mail: an invitation to take up, or a password to choose anew. */
export const ACCOUNT_LINKS = ['invitation', 'password'] as const;
export const accountLinkBody = z.strictObject({ token: z.string().min(1).max(100) });
export const accountLinkAnswer = z.object({
  purpose: z.enum(ACCOUNT_LINKS),
  name: z.string(),
  email: z.string(),
  /** The site that the invitation is to. */
  site: z.string().nullable(),
});
export type AccountLinkAnswer = z.infer<typeof accountLinkAnswer>;
export const MIN_PASSWORD_LENGTH = 10;
export const newPassword = z
  .string()
  .min(MIN_PASSWORD_LENGTH, `Use at least ${MIN_PASSWORD_LENGTH} characters.`)
  .max(200, 'At most 200 characters.');
export const useAccountLinkBody = z.strictObject({
  token: accountLinkBody.shape.token,
  name: personName.optional(),
  password: newPassword,
});
export const askForPasswordBody = z.strictObject({ email: colleagueEmail });
export const setOwnAccountBody = z.strictObject({ name: personName });
export const changePasswordBody = z.strictObject({
  current: z.string().min(1, 'Type your password.').max(200),
  password: newPassword,
});

export const ownSession = z.object({
  id: z.string(),
  /** When it began, and with which browser, as far as it says. */
  since: moment.nullable(),
  browser: z.string(),
  isThis: z.boolean(),
});
export const ownSessionsAnswer = z.object({ sessions: z.array(ownSession) });
export type OwnSession = z.infer<typeof ownSession>;

/** What concerns security, apart from the edits. */
export const SECURITY_EVENTS = [
  'signed-in',
  'sign-in-failed',
  'password-changed',
  'password-asked-for',
  'second-step-set',
  'second-step-removed',
  'passkey-added',
  'passkey-removed',
  'session-ended',
  'invited',
  'invitation-taken-up',
  'roles-changed',
  'groups-changed',
  'colleague-suspended',
  'colleague-back',
  'colleague-removed',
  'role-made',
  'role-changed',
  'role-removed',
  'site-exported',
  'second-step-asked-for',
  'second-step-left',
] as const;
export type SecurityEvent = (typeof SECURITY_EVENTS)[number];
export const securityEntry = z.object({
  at: moment,
  event: z.enum(SECURITY_EVENTS),
  /** Who did it; null for somebody unknown. */
  by: z.string().nullable(),
  /** Whom or what it is about; empty where that says nothing more. */
  about: z.string(),
  place: z.string(),
});
export const securityLogAnswer = z.object({ entries: z.array(securityEntry), more: z.boolean() });
export type SecurityEntry = z.infer<typeof securityEntry>;

/** How somebody signs in besides with the password. */
export const signInWaysAnswer = z.object({
  /** Since when one-time codes are asked for; null where they are not. */
  codesSince: moment.nullable(),
  recoveryCodes: z.number().int(),
  passkeys: z.array(z.object({ id: z.string(), name: z.string(), addedAt: moment, lastUsedAt: moment.nullable() })),
});
export type SignInWays = z.infer<typeof signInWaysAnswer>;

/** What changes how somebody signs in is done by who knows the password. */
export const againPasswordBody = z.strictObject({ password: z.string().min(1, 'Type your password.').max(200) });
/** What an authenticator takes: as a text, and as the address that it reads from a picture (otpauth). */
export const codesBegunAnswer = z.object({ secret: z.string(), address: z.string() });
export const codeBody = z.strictObject({ code: z.string().trim().min(6, 'Type the code.').max(40) });
export const recoveryCodesAnswer = z.object({ recoveryCodes: z.array(z.string()) });

/** What the browser asks an authenticator for, and what comes of it, as WebAuthn level 3 writes them in JSON. */
export const webAuthnAnswer = z.looseObject({ challenge: z.string() });
const MAX_WEBAUTHN_TEXT = 20_000;
const base64url = z
  .string()
  .max(MAX_WEBAUTHN_TEXT)
  .regex(/^[A-Za-z0-9_-]+$/);
const webAuthnResponse = z.looseObject({
  id: base64url,
  rawId: base64url,
  type: z.literal('public-key'),
  response: z.looseObject({ clientDataJSON: base64url }),
  clientExtensionResults: z.looseObject({}),
});
export const addPasskeyBody = z.strictObject({
  name: z.string().trim().min(1, 'Type a name.').max(60, 'At most 60 characters.'),
  response: webAuthnResponse,
});
export const usePasskeyBody = z.strictObject({ response: webAuthnResponse });

export const siteSecurityBody = z.strictObject({ needsSecondStep: z.boolean() });
export const siteSecurityAnswer = z.object({
  needsSecondStep: z.boolean(),
  /** The colleagues who have none yet, and could not open the site while it is asked for. */
  without: z.array(z.string()),
});
export type SiteSecurity = z.infer<typeof siteSecurityAnswer>;
