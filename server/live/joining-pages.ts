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
import { type SiteWords, siteWords } from './site-words.ts';

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
    (
      handler: (site: LetterSite, words: SiteWords, request: Request, response: Response) => Promise<Said | null>,
    ): RequestHandler =>
    async (request, response, next) => {
      const key = siteKeySchema.safeParse(request.params.site);
      const named = key.success ? await sites.named(key.data) : undefined;
      if (!key.success || named === undefined) return next();
      response.set({ 'Cache-Control': 'no-store', 'Referrer-Policy': 'no-referrer' });
      if (request.method === 'POST' && !isOwnOrigin(request.headers, ownOrigin))
        return void response.status(403).type('text').end('Use the form on the site itself.\n');
      try {
        const words = siteWords(named.language);
        const { name, language } = named;
        const site = { key: key.data, name, language, address: `${sites.origin}/${key.data}` };
        const said = await handler(site, words, request, response);
        if (said) (await sites.plainPage(key.data, await askers.find(request), said))!.send(request, response);
      } catch (fault) {
        if (!(fault instanceof ProblemError) || fault.code !== 'too-many-attempts') throw fault;
        response.status(429).type('text').end(`${fault.message}\n`);
      }
    };

  const join = async (site: LetterSite, words: SiteWords, request: Request): Promise<Said> => {
    const link = await letters.link(site.key, String(request.params.token));
    if (!link) return linkEnded(words);
    const audience = (await sites.audienceName(site.key, link.audience)) ?? words.thisSite;
    const title = words.join(audience);
    const { email, to } = fieldsOf(request);
    const on = wayOn(request.method === 'POST' ? to : request.query.to);
    if (request.method === 'POST' && emailSchema.safeParse(email).success) {
      await parts.attempts.spend(request.ip, `letter|${site.key}|${email}`);
      await letters.askToJoin(site, link, audience, email, on);
      return letterSent(words, email);
    }
    const lead = link.needs_approval ? markup`<p>${words.approvedFirst(site.name)}</p>` : '';
    const isWrong = request.method === 'POST';
    return {
      status: isWrong ? 422 : 200,
      title,
      body: markup`${lead}<p>${words.typeToJoin}</p>${emailForm(words, email, isWrong, on, words.sendMail)}`,
    };
  };

  const password = async (site: LetterSite, words: SiteWords, request: Request): Promise<Said> => {
    const { email } = fieldsOf(request);
    if (request.method === 'POST' && emailSchema.safeParse(email).success) {
      await parts.attempts.spend(request.ip, `letter|${site.key}|${email}`);
      await letters.askForPassword(site, email);
      return letterSent(words, email);
    }
    const isWrong = request.method === 'POST';
    return {
      status: isWrong ? 422 : 200,
      title: words.newPassword,
      body: markup`<p>${words.typeForPassword}</p>${emailForm(words, email, isWrong, '/', words.sendLink)}`,
    };
  };

  const letter = async (
    site: LetterSite,
    words: SiteWords,
    request: Request,
    response: Response,
  ): Promise<Said | null> => {
    const token = String(request.params.token);
    const open = await letters.open(site.key, token);
    if (!open) return linkEnded(words);
    const { name, password: chosen } = fieldsOf(request);
    const isNew = open.audience === null || !open.isKnown;
    const faults = request.method === 'POST' && isNew ? faultsIn(words, open, name, chosen) : [];
    if (request.method !== 'POST' || faults.length > 0)
      return renderLetter(words, open, (await audienceOf(site.key, open)) ?? words.thisSite, name, faults);
    const done = await letters.finish(site.key, token, { name: name.trim(), password: isNew ? chosen : '' });
    if (done.outcome === 'ended') return linkEnded(words);
    const [before, link, behind] = words.waitsForApproval;
    if (done.outcome === 'waits')
      return {
        title: words.askedToJoin,
        body: markup`<p>${before}<a href="/${site.key}/sign-in">${link}</a>${behind}</p>`,
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

const linkEnded = ({ linkEnded: { title, text } }: SiteWords): Said => ({
  status: 410,
  title,
  body: markup`<p>${text}</p>`,
});

const letterSent = (words: SiteWords, email: string): Said => ({
  title: words.checkMail,
  body: markup`<p>${words.mailSent(email)}</p>`,
});

function faultsIn(words: SiteWords, { audience }: OpenLetter, name: string, password: string): string[] {
  return [
    ...(audience !== null && name.trim() === '' ? [words.typeName] : []),
    ...(password.length < MIN_PASSWORD_LENGTH ? [words.longerPassword(MIN_PASSWORD_LENGTH)] : []),
  ];
}

function renderLetter(
  words: SiteWords,
  { email, audience, isKnown }: OpenLetter,
  title: string,
  name: string,
  faults: readonly string[],
): Said {
  const isJoining = audience !== null;
  const fields = [
    isJoining && !isKnown
      ? markup`<p><label>${words.yourName}<br><input name="name" autocomplete="name" required maxlength="100" value="${name}"></label></p>`
      : '',
    !isJoining || !isKnown
      ? markup`<p><label>${(isJoining ? words.aPassword : words.theNewPassword)(MIN_PASSWORD_LENGTH)}<br><input type="password" name="password" autocomplete="new-password" required minlength="${MIN_PASSWORD_LENGTH}" maxlength="200"></label></p>`
      : '',
  ];
  return {
    status: faults.length > 0 ? 422 : 200,
    title: isJoining ? words.join(title) : words.newPassword,
    body: markup`<p>${words.forAccount(email)}</p><form method="post" class="sign-in">${faults.length === 0 ? '' : markup`<p role="alert" class="wrong">${faults.join(' ')}</p>`}
<input type="hidden" name="email" autocomplete="username" value="${email}">${fields}<p><button>${isJoining ? words.joinButton : words.setPassword}</button></p></form>`,
  };
}

function emailForm(words: SiteWords, email: string, isWrong: boolean, to: string, button: string): Html {
  return markup`<form method="post" class="sign-in">${isWrong ? markup`<p role="alert" class="wrong">${words.typeMail}</p>` : ''}
<input type="hidden" name="to" value="${to}">
<p><label>${words.mailAddress}<br><input type="email" name="email" autocomplete="username" required maxlength="200" value="${email}"></label></p>
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
