import { type Express, type Request, type RequestHandler, type Response } from 'express';
import { z } from 'zod';
import { type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { ProblemError } from '../problem.ts';
import type { Attempts } from '../security/attempts.ts';
import { isOwnOrigin } from '../security/own-origin.ts';
import type { LetterSite, Letters, OpenLetter } from '../visitors/letters.ts';
import { type Html, markup } from './html.ts';
import type { Askers } from './asking.ts';
import { formBody } from './form-body.ts';
import type { LiveSites } from './live-sites.ts';
import { wayOn } from './visitor-pages.ts';

const emailSchema = z.email().max(200);
const MIN_PASSWORD_LENGTH = 10;

export interface JoiningParts {
  readonly sites: LiveSites;
  readonly letters: Letters;
  readonly attempts: Attempts;
  readonly askers: Askers;
  readonly ownOrigin: string | null;
}

/** One page of joining: what it is called and says. */
export interface Said {
  readonly status?: number;
  readonly title: string;
  readonly body: Html;
}

/** Joining an audience by a link, and choosing a new password. Forms are taken from the site's own pages only. */
export function mountJoiningPages(app: Express, parts: JoiningParts): void {
  const { sites, letters, askers, ownOrigin } = parts;
  /** Finds the site, and shows what the handler says of it. */
  const page =
    (handler: (site: LetterSite, request: Request, response: Response) => Promise<Said | null>): RequestHandler =>
    async (request, response, next) => {
      const key = siteKeySchema.safeParse(request.params.site);
      const name = key.success ? await sites.nameOf(key.data) : undefined;
      if (!key.success || name === undefined) return next();
      response.set({ 'Cache-Control': 'no-store', 'Referrer-Policy': 'no-referrer' });
      if (request.method === 'POST' && !isOwnOrigin(request.headers, ownOrigin))
        return void response.status(403).type('text').end('Use the form on the site itself.\n');
      try {
        const site = { key: key.data, name, address: `${sites.origin}/${key.data}` };
        const said = await handler(site, request, response);
        if (said) (await sites.plainPage(key.data, await askers.find(request), said))!.send(request, response);
      } catch (fault) {
        if (!(fault instanceof ProblemError) || fault.code !== 'too-many-attempts') throw fault;
        response.status(429).type('text').end(`${fault.message}\n`);
      }
    };

  const join = async (site: LetterSite, request: Request): Promise<Said> => {
    const link = await letters.link(site.key, String(request.params.token));
    if (!link) return ENDED;
    const audience = (await sites.audienceName(site.key, link.audience)) ?? 'this site';
    const title = `Join ${audience}`;
    const { email, to } = fieldsOf(request);
    const on = wayOn(request.method === 'POST' ? to : request.query.to);
    if (request.method === 'POST' && emailSchema.safeParse(email).success) {
      await parts.attempts.spend(request.ip, `letter|${site.key}|${email}`);
      await letters.askToJoin(site, link, audience, email, on);
      return letterSent(email);
    }
    const lead = link.needs_approval
      ? markup`<p>The site’s managers approve each request to join ${site.name}.</p>`
      : '';
    const isWrong = request.method === 'POST';
    return {
      status: isWrong ? 422 : 200,
      title,
      body: markup`${lead}<p>Type your mail address. We will send you a mail with a link to continue.</p>${emailForm(email, isWrong, on, 'Send me the mail')}`,
    };
  };

  const password = async (site: LetterSite, request: Request): Promise<Said> => {
    const { email } = fieldsOf(request);
    if (request.method === 'POST' && emailSchema.safeParse(email).success) {
      await parts.attempts.spend(request.ip, `letter|${site.key}|${email}`);
      await letters.askForPassword(site, email);
      return letterSent(email);
    }
    const isWrong = request.method === 'POST';
    return {
      status: isWrong ? 422 : 200,
      title: 'A new password',
      body: markup`<p>Type the mail address of your account. We send you a link to choose a new password.</p>${emailForm(email, isWrong, '/', 'Send me the link')}`,
    };
  };

  const letter = async (site: LetterSite, request: Request, response: Response): Promise<Said | null> => {
    const token = String(request.params.token);
    const open = await letters.open(site.key, token);
    if (!open) return ENDED;
    const { name, password: chosen } = fieldsOf(request);
    const isNew = open.audience === null || !open.isKnown;
    const faults = request.method === 'POST' && isNew ? faultsIn(open, name, chosen) : [];
    if (request.method !== 'POST' || faults.length > 0)
      return renderLetter(open, (await audienceOf(site.key, open)) ?? 'this site', name, faults);
    const done = await letters.finish(site.key, token, { name: name.trim(), password: isNew ? chosen : '' });
    if (done.outcome === 'ended') return ENDED;
    if (done.outcome === 'waits')
      return {
        title: 'You have asked to join',
        body: markup`<p>The site’s managers will approve your request. You can <a href="/${site.key}/sign-in">sign in</a> already; more pages open once they have.</p>`,
      };
    // Whoever reads the letter and has chosen a password signs in with it: a letter that was read by others opens nothing.
    response.redirect(
      303,
      `/${site.key}/sign-in?${new URLSearchParams({ to: done.wayOn, email: done.email, done: open.audience === null ? 'password' : 'joined' }).toString()}`,
    );
    return null;
  };
  const audienceOf = (key: SiteKey, { audience }: OpenLetter) =>
    audience === null ? Promise.resolve(undefined) : sites.audienceName(key, audience);

  for (const [path, handler] of [
    ['/:site/~join/:token', join],
    ['/:site/~password', password],
    ['/:site/~letter/:token', letter],
  ] as const) {
    app.get(path, page(handler));
    app.post(path, ...formBody, page(handler));
  }
}

const ENDED: Said = {
  status: 410,
  title: 'This link has ended',
  body: markup`<p>It has been used or withdrawn, or it has expired. Ask whoever gave it to you for a new one.</p>`,
};

const letterSent = (email: string): Said => ({
  title: 'Check your mail',
  body: markup`<p>We have sent a mail to ${email}. Follow its link within a day.</p>`,
});

function faultsIn({ audience }: OpenLetter, name: string, password: string): string[] {
  return [
    ...(audience !== null && name.trim() === '' ? ['Type your name.'] : []),
    ...(password.length < MIN_PASSWORD_LENGTH
      ? [`Use at least ${MIN_PASSWORD_LENGTH} characters for the password.`]
      : []),
  ];
}

function renderLetter(
  { email, audience, isKnown }: OpenLetter,
  title: string,
  name: string,
  faults: readonly string[],
): Said {
  const isJoining = audience !== null;
  const fields = [
    isJoining && !isKnown
      ? markup`<p><label>Your name<br><input name="name" autocomplete="name" required maxlength="100" value="${name}"></label></p>`
      : '',
    !isJoining || !isKnown
      ? markup`<p><label>${isJoining ? 'A password' : 'The new password'}, at least ${MIN_PASSWORD_LENGTH} characters<br><input type="password" name="password" autocomplete="new-password" required minlength="${MIN_PASSWORD_LENGTH}" maxlength="200"></label></p>`
      : '',
  ];
  return {
    status: faults.length > 0 ? 422 : 200,
    title: isJoining ? `Join ${title}` : 'A new password',
    body: markup`<p>For the account of ${email}.</p><form method="post" class="sign-in">${faults.length === 0 ? '' : markup`<p role="alert" class="wrong">${faults.join(' ')}</p>`}
<input type="hidden" name="email" autocomplete="username" value="${email}">${fields}<p><button>${isJoining ? 'Join' : 'Set the password'}</button></p></form>`,
  };
}

function emailForm(email: string, isWrong: boolean, to: string, button: string): Html {
  return markup`<form method="post" class="sign-in">${isWrong ? markup`<p role="alert" class="wrong">Type a mail address, such as you@school.example.</p>` : ''}
<input type="hidden" name="to" value="${to}">
<p><label>Mail address<br><input type="email" name="email" autocomplete="username" required maxlength="200" value="${email}"></label></p>
<p><button>${button}</button></p></form>`;
}

/** The fields of a form as texts, none longer than it may be. */
function fieldsOf(request: Request): Record<'email' | 'name' | 'password' | 'to', string> {
  const given = (request.body ?? {}) as Record<string, unknown>;
  const text = (field: string, longest: number) =>
    typeof given[field] === 'string' ? given[field].slice(0, longest) : '';
  return {
    email: text('email', 200).trim(),
    name: text('name', 100),
    password: text('password', 200),
    to: text('to', 2000),
  };
}
