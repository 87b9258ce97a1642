import { type Problem, problemSchema } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { type AnswerOf, type BodyOf, ROUTES, type RouteName } from '#contract/routes.ts';
import type { z } from 'zod';
import { heldBack } from './held-changes.ts';

/** What the server refused, with a sentence that says why and what to do. */
export class ServerProblem extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** The server could not be reached: whether the request arrived is not known. */
export class NoAnswer extends Error {
  constructor() {
    super('Spur cannot be reached. Check your connection; what you typed is still on your screen.');
  }
}

/** Nobody said whether something was done that is done at most once. */
export class NotKnown extends Error {
  constructor() {
    super('Spur did not answer, so it may or may not have been done. Look in the history once Spur is there again.');
  }
}

/** Whether the same request is to be sent again, since nobody knows whether it was done. */
export const isUnknown = (fault: unknown): boolean =>
  fault instanceof NoAnswer || (fault instanceof ServerProblem && fault.problem.code === 'outcome-unknown');

/** What had no answer is sent again after so long, so often. */
export const AGAIN_AFTER_MS = 1500;
const MAX_REPEATS = 10;

type InputOf<Name extends RouteName> = (typeof ROUTES)[Name] extends { body: infer Body extends z.ZodType }
  ? z.input<Body>
  : (typeof ROUTES)[Name] extends { takes: string }
    ? Blob
    : undefined;

const isFile = (body: unknown): body is Blob => body instanceof Blob;

/** What somebody did arrives though they close the page. */
const KEPT_ALIVE: readonly RouteName[] = ['applyOperations', 'writeTogether'];
/** So many characters are at most as many bytes as browsers send on when a page is closed: 64 KiB (Fetch, 4.6). */
const MOST_KEPT_ALIVE = 20_000;
export const outlivesPage = (text = ''): boolean => text.length <= MOST_KEPT_ALIVE;

/** Refuses, as the server would, what is held back here. @param reason in words; null for nothing @throws ServerProblem */
export function refuse(reason: string | null): void {
  if (reason === null) return;
  const problem = { type: '/problems/not-allowed', title: 'Nothing is changed', status: 403, code: 'not-allowed' };
  throw new ServerProblem({ ...problem, detail: reason });
}

/** Calls a route of the contract and parses its answer. @throws ServerProblem, NoAnswer */
export async function call<Name extends RouteName>(
  name: Name,
  parameters: Readonly<Record<string, string>> = {},
  body?: InputOf<Name> | BodyOf<Name>,
  query = '',
): Promise<AnswerOf<Name>> {
  const route: Route = ROUTES[name];
  refuse(heldBack(name, route));
  const path = route.path.replace(/:(\w+)/g, (_, parameter: string) => encodeURIComponent(parameters[parameter] ?? ''));
  const text = body === undefined || isFile(body) ? undefined : JSON.stringify(body);
  let response: Response;
  try {
    response = await fetch(path + query, {
      method: route.method.toUpperCase(),
      headers: body === undefined ? {} : { 'Content-Type': route.takes ?? 'application/json' },
      body: isFile(body) ? body : text,
      keepalive: KEPT_ALIVE.includes(name) && outlivesPage(text),
      credentials: 'same-origin',
    });
  } catch {
    throw new NoAnswer();
  }
  const answer: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    const problem = problemSchema.safeParse(answer);
    if (!problem.success) throw new NoAnswer();
    throw new ServerProblem(problem.data);
  }
  return (route.answer ? route.answer.parse(answer) : answer) as AnswerOf<Name>;
}

/**
 * Calls a route that does what it is asked once for each request id, and sends the same again while nobody knows whether it was done.
 * @throws ServerProblem; NotKnown where there was still no answer after 15 seconds
 */
export async function callUntilKnown<Name extends RouteName>(
  name: Name,
  parameters: Readonly<Record<string, string>>,
  body: InputOf<Name> & ({ readonly request: string } | { readonly id: string }),
): Promise<AnswerOf<Name>> {
  for (let repeats = 0; ; repeats += 1) {
    try {
      return await call(name, parameters, body);
    } catch (fault) {
      if (!isUnknown(fault)) throw fault;
      if (repeats === MAX_REPEATS) throw new NotKnown();
      await new Promise((resolve) => setTimeout(resolve, AGAIN_AFTER_MS));
    }
  }
}

/** A fault in words for the person. */
export const wordsOfFault = (fault: unknown): string =>
  fault instanceof ServerProblem || fault instanceof NoAnswer || fault instanceof NotKnown
    ? fault.message
    : 'Something went wrong here. Reload the page and try again.';
