import type { IncomingMessage, ServerResponse } from 'node:http';
import { parse as parseCookies } from 'cookie';
import { unsign } from 'cookie-signature';
import type { Logger } from 'pino';
import { siteKeySchema } from '#core/model/ids.ts';
import type { Account } from '#contract/api.ts';
import { ROUTES } from '#contract/routes.ts';
import { type RememberedSessions, SESSION_COOKIE } from '../accounts/remembered-sessions.ts';
import { type Asker, admit, parseBody } from '../admission.ts';
import { API_HEADERS } from '../api-headers.ts';
import { ProblemError, answerFault } from '../problem.ts';

import type { People } from '../people/people.ts';
import type { EditService } from './edit-service.ts';

/**
 * The lane for edits. An edit is what the workbench sends all day, and passing through Express costs as much as the
 * database's work for it. A request with nothing unusual about it is answered here: its sender's session is
 * remembered, it is let in as any other, who they are on the site is known, and its body is JSON of a known, allowed length.
 * Every other one is left to Express, whose answer is the same or says what is wrong.
 */
interface EditLane {
  readonly edits: EditService;
  readonly people: People;
  readonly sessions: RememberedSessions;
  readonly signed: SignedSessions;
  readonly log: Logger;
  /** The workbench's outside address, or null where none was named. */
  readonly ownOrigin: string | null;
}

const ROUTE = ROUTES.applyOperations;
const ANSWER_HEADERS = { ...API_HEADERS, 'Content-Type': 'application/json; charset=utf-8' };
const [BEFORE_KEY, AFTER_KEY] = ROUTE.path.split(':site') as [string, string];

/** Takes the request if it is an edit with nothing unusual about it; false leaves it as it was. */
export function takeEdit(lane: EditLane, request: IncomingMessage, response: ServerResponse): boolean {
  const { method, url = '', headers } = request;
  if (method !== 'POST' || !url.startsWith(BEFORE_KEY) || !url.endsWith(AFTER_KEY)) return false;
  const key = siteKeySchema.safeParse(url.slice(BEFORE_KEY.length, -AFTER_KEY.length));
  const length = Number(headers['content-length']);
  if (!key.success || !(length <= ROUTE.largest) || headers['content-encoding'] !== undefined) return false;
  const account = rememberedCaller(lane, headers.cookie);
  if (!account || !isAdmitted({ account, headers, ownOrigin: lane.ownOrigin })) return false;
  if (!lane.people.isKnownColleague(key.data, account)) return false;

  readText(request)
    .then((text) => lane.edits.apply(key.data, account, parseBody(ROUTE.body, parseJson(text))))
    .then(({ revision, applied, inverse }) => {
      const answer = JSON.stringify({ revision, applied, inverse });
      response.writeHead(200, { ...ANSWER_HEADERS, 'Content-Length': Buffer.byteLength(answer) }).end(answer);
    })
    .catch((fault: unknown) => {
      // Whoever went away in the middle of the body needs no answer.
      if (!request.complete) return;
      response.setHeaders(new Map(Object.entries(API_HEADERS)));
      answerFault(lane.log, fault, request, response);
    });
  return true;
}

function isAdmitted(asker: Asker): boolean {
  try {
    admit(ROUTE, asker);
    return true;
  } catch {
    return false;
  }
}

/** Who sent the cookies, if the session is signed by this server and remembered. */
function rememberedCaller({ sessions, signed }: EditLane, cookies: string | undefined): Account | null {
  const id = cookies === undefined ? null : signed.sessionIn(cookies);
  return id === null ? null : sessions.rememberedAccount(id);
}

const MAX_COOKIES = 1000;

/** The sessions that cookies name. That a signature is right is worked out once for the same cookies, since it costs as much as an edit. */
export class SignedSessions {
  readonly #secret: string;
  readonly #known = new Map<string, string>();

  constructor(secret: string) {
    this.#secret = secret;
  }

  /** The id of the session in a Cookie header; null where there is none that this server has signed. */
  sessionIn(cookies: string): string | null {
    const known = this.#known.get(cookies);
    if (known !== undefined) return known;
    const cookie = parseCookies(cookies)[SESSION_COOKIE];
    // The session package marks a signed value so.
    const id = cookie?.startsWith('s:') ? unsign(cookie.slice(2), this.#secret) : false;
    if (id === false) return null;
    if (this.#known.size >= MAX_COOKIES) this.#known.clear();
    this.#known.set(cookies, id);
    return id;
  }
}

function readText(request: IncomingMessage): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    request
      .setEncoding('utf8')
      .on('data', (chunk: string) => (text += chunk))
      .on('end', () => resolve(text))
      .on('error', reject);
  });
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (fault) {
    throw new ProblemError('body-not-json', { reason: (fault as Error).message });
  }
}
