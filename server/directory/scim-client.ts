import { z } from 'zod';
import type { DirectoryPerson } from '#core/directory/directory-person.ts';
import { ProblemError } from '../problem.ts';

/** Where a directory is, and what opens it. */
export interface DirectoryAccess {
  /** The base address of its SCIM 2.0 service, without a slash at the end. */
  readonly url: string;
  readonly token: string;
}

export interface DirectoryGroup {
  readonly id: string;
  readonly name: string;
}

/** What a directory says of an organisation. */
export interface DirectoryContents {
  readonly people: readonly DirectoryPerson[];
  readonly groups: readonly DirectoryGroup[];
}

const PART = 100;
/** More people than one site has visitors. */
const MAX_ITEMS = 20_000;
const PATIENCE_MS = 15_000;

const listOf = <Resource extends z.ZodType>(resource: Resource) =>
  z.object({ totalResults: z.number().int().min(0), Resources: z.array(resource).default([]) });

const userSchema = z.object({
  id: z.string().min(1).max(200),
  userName: z.string().default(''),
  displayName: z.string().optional(),
  name: z.object({ formatted: z.string().optional() }).optional(),
  active: z.boolean().default(true),
  emails: z.array(z.object({ value: z.string(), primary: z.boolean().optional() })).default([]),
  groups: z.array(z.object({ value: z.string() })).default([]),
});
const groupSchema = z.object({ id: z.string().min(1).max(200), displayName: z.string() });

/**
 * Reads a directory by SCIM 2.0 (RFC 7644, 3.4.2), part by part. People without a mail address cannot have an account and are
 * left out. @throws ProblemError where it does not answer, or with something else than a directory does
 */
export async function readDirectory(access: DirectoryAccess): Promise<DirectoryContents> {
  const groups = await readAll(access, 'Groups', groupSchema);
  const users = await readAll(access, 'Users', userSchema);
  return {
    groups: groups.map(({ id, displayName }) => ({ id, name: displayName })),
    people: users.flatMap((user) => {
      const email = (user.emails.find(({ primary }) => primary) ?? user.emails[0])?.value ?? user.userName;
      if (!z.email().max(200).safeParse(email).success) return [];
      const name = user.displayName ?? user.name?.formatted ?? email;
      return [
        {
          id: user.id,
          name: name.slice(0, 100),
          email,
          isActive: user.active,
          groups: user.groups.map(({ value }) => value),
        },
      ];
    }),
  };
}

async function readAll<Resource extends z.ZodType>(
  access: DirectoryAccess,
  kind: 'Users' | 'Groups',
  schema: Resource,
): Promise<z.output<Resource>[]> {
  const all: z.output<Resource>[] = [];
  for (;;) {
    const part = await readPart(access, `${kind}?startIndex=${all.length + 1}&count=${PART}`, listOf(schema));
    all.push(...(part.Resources as z.output<Resource>[]));
    if (all.length >= part.totalResults || part.Resources.length === 0) return all;
    if (all.length >= MAX_ITEMS)
      throw new ProblemError('directory-unreadable', { reason: `it has more than ${MAX_ITEMS} ${kind}` });
  }
}

async function readPart<Part extends z.ZodType>(access: DirectoryAccess, path: string, schema: Part) {
  let json: unknown;
  try {
    const response = await fetch(`${access.url}/${path}`, {
      headers: { Authorization: `Bearer ${access.token}`, Accept: 'application/scim+json' },
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
    });
    if (!response.ok) throw new ProblemError('directory-unreadable', { reason: `it answered ${response.status}` });
    json = await response.json();
  } catch (fault) {
    if (fault instanceof ProblemError) throw fault;
    throw new ProblemError('directory-unreadable', { reason: 'it did not answer' });
  }
  const parsed = schema.safeParse(json);
  if (!parsed.success) throw new ProblemError('directory-unreadable', { reason: 'its answer is none of SCIM 2.0' });
  return parsed.data;
}
