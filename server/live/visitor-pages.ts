import { type Express, type Request, type Response } from 'express';
import { z } from 'zod';
import { siteKeySchema } from '#core/model/ids.ts';
import { ProblemError } from '../problem.ts';
import type { Attempts } from '../security/attempts.ts';
import { isOwnOrigin, isSecure } from '../security/own-origin.ts';
import { VISITOR_COOKIE, type VisitorSessions } from '../visitors/visitor-sessions.ts';
import { type Askers, visitorToken } from './asking.ts';
import { formBody } from './form-body.ts';
import type { LiveSites } from './live-sites.ts';
import type { SignIn } from './render-page.ts';

export interface VisitorPagesParts {
  readonly sites: LiveSites;
  readonly sessions: VisitorSessions;
  readonly attempts: Attempts;
  readonly askers: Askers;
  readonly ownOrigin: string | null;
}

/** What was done on the way to signing in. */
const DONE = z.enum(['password', 'joined']).nullable().catch(null);

/** Signing in and out on the visitors' side. Forms are taken from the site's own pages only. */
export function mountVisitorPages(
  app: Express,
  { sites, sessions, attempts, askers, ownOrigin }: VisitorPagesParts,
): void {
  const show = async (request: Request, response: Response, given: Omit<SignIn, 'page'>) => {
    const page = await sites.signInPage(String(request.params.site), await askers.find(request), given);
    if (page) page.send(request, response);
    else response.status(404).end();
  };
  app.get('/:site/sign-in', (request, response) =>
    show(request, response, {
      to: wayOn(request.query.to),
      email: typeof request.query.email === 'string' ? request.query.email.slice(0, 200) : '',
      isWrong: false,
      done: DONE.parse(request.query.done),
    }),
  );
  app.post('/:site/:way', ...formBody, async (request, response, next) => {
    const { site, way } = request.params as { site: string; way: string };
    if (way !== 'sign-in' && way !== 'sign-out') return next();
    const key = siteKeySchema.safeParse(site);
    if (!key.success) return next();
    if (!isOwnOrigin(request.headers, ownOrigin))
      return void response.status(403).type('text').end('Sign in from the site itself.\n');
    const cookie = { path: `/${key.data}`, httpOnly: true, sameSite: 'lax' as const, secure: isSecure(ownOrigin) };
    response.set('Cache-Control', 'no-store');
    if (way === 'sign-out') {
      const token = visitorToken(request.headers.cookie);
      if (token !== null) await sessions.signOut(token);
      return void response.clearCookie(VISITOR_COOKIE, cookie).redirect(303, `/${key.data}/`);
    }
    const { email = '', password = '', to } = (request.body ?? {}) as Record<string, unknown>;
    const given = { to: wayOn(to), email: String(email).slice(0, 200), isWrong: true, done: null };
    let signedIn: Awaited<ReturnType<VisitorSessions['signIn']>> = null;
    try {
      signedIn = await attempts.guard({ place: request.ip, account: `${key.data}|${given.email}` }, async () => {
        const made = await sessions.signIn(key.data, given.email, String(password).slice(0, 200));
        // Only what fails is counted.
        if (!made) throw new ProblemError('sign-in-failed');
        return made;
      });
    } catch (fault) {
      if (!(fault instanceof ProblemError)) throw fault;
      if (fault.code === 'too-many-attempts') return void response.status(429).type('text').end(`${fault.message}\n`);
    }
    if (!signedIn) return show(request, response, given);
    // Whoever was signed in before is not any more: a session is never taken over, nor left behind.
    const before = visitorToken(request.headers.cookie);
    if (before !== null) await sessions.signOut(before);
    response.cookie(VISITOR_COOKIE, signedIn.token, { ...cookie, expires: signedIn.expires });
    const goesTo = given.to === '/' ? await sites.landing(key.data, signedIn.audiences) : decodeURI(given.to);
    response.redirect(303, `/${key.data}${encodeURI(goesTo)}`);
  });
}

/** Where to go on to after signing in: an address of the same site, and nothing else. */
export function wayOn(asked: unknown): string {
  const to = typeof asked === 'string' ? asked : '';
  // A second slash, a backslash or a control character could make another host of it.
  if (!/^\/(?![/\\])[^\\\p{Cc}]{0,2000}$/u.test(to) || to.includes('//')) return '/';
  try {
    // Steps that lead up would lead out of the site.
    const isSteady = decodeURI(to)
      .split(/[/?#]/)
      .every((step) => step !== '.' && step !== '..');
    return isSteady ? to : '/';
  } catch {
    return '/';
  }
}
