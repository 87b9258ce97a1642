import { isSameJson } from '../model/canonical-json.ts';
import { z } from 'zod';
import { pageWithAddress } from '../model/address-scope.ts';
import {
  type Destination,
  MAX_REDIRECTS,
  type Redirect,
  type RedirectId,
  destinationSchema,
  isPattern,
  redirectAddressSchema,
  redirectIdSchema,
} from '../model/redirect.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { type Applied, defineOperation, quoted } from './definition.ts';

export const redirectAddSchema = z.strictObject({
  name: z.literal('redirect.add'),
  redirect: redirectIdSchema,
  /** The redirect that it follows; null puts it first, left out puts it last. */
  after: redirectIdSchema.nullable().optional(),
  from: redirectAddressSchema,
  to: destinationSchema,
});

/** Makes an address lead elsewhere. Refused for an address that a page of the tree has: a page is never redirected. */
export const redirectAdd = defineOperation({
  schema: redirectAddSchema,

  apply(site, { redirect, after, from, to }) {
    const { redirects } = site.settings;
    if (redirects.some(({ id }) => id === redirect)) return refuse('redirect-exists', { redirect });
    if (redirects.length >= MAX_REDIRECTS) return refuse('redirect-too-many', { limit: MAX_REDIRECTS });
    const made: Redirect = { id: redirect, from: from.normalize('NFC'), to };
    if (redirects.some((one) => one.from === made.from)) return refuse('redirect-twice', { address: from });
    // In inverses, which alone say what it follows, it is as it was; what has been put at its address since goes before it.
    const forbidden = after === undefined ? checkRedirect(site, made) : null;
    if (forbidden) return forbidden;
    const before = after == null ? -1 : redirects.findIndex(({ id }) => id === after);
    const at = after === undefined || (after !== null && before === -1) ? redirects.length : before + 1;
    return withRedirects(site, redirects.toSpliced(at, 0, made), { name: 'redirect.remove', redirect });
  },

  cells: ({ redirect }) => [`redirect:${redirect}.there`],

  words: ({ from, to }, site) => `made ${from} lead ${destinationWords(site, to)}`,
});

export const redirectSetSchema = z.strictObject({
  name: z.literal('redirect.set'),
  redirect: redirectIdSchema,
  to: destinationSchema,
});

/** Makes a redirect lead elsewhere. */
export const redirectSet = defineOperation({
  schema: redirectSetSchema,

  apply(site, { redirect, to }) {
    const { redirects } = site.settings;
    const was = redirects.find(({ id }) => id === redirect);
    if (!was) return refuse('redirect-unknown', { redirect });
    if (isSameJson(was.to, to)) return { ok: true, site, inverse: [], touched: [] };
    return withRedirects(
      site,
      redirects.map((one) => (one === was ? { ...was, to } : one)),
      { name: 'redirect.set', redirect, to: was.to },
    );
  },

  cells: ({ redirect }) => [`redirect:${redirect}.to`],

  words: ({ redirect, to }, site) => `made ${addressOf(site, redirect)} lead ${destinationWords(site, to)}`,
});

export const redirectRemoveSchema = z.strictObject({ name: z.literal('redirect.remove'), redirect: redirectIdSchema });

/** Takes a redirect away. */
export const redirectRemove = defineOperation({
  schema: redirectRemoveSchema,

  apply(site, { redirect }) {
    const { redirects } = site.settings;
    const at = redirects.findIndex(({ id }) => id === redirect);
    if (at === -1) return refuse('redirect-unknown', { redirect });
    const { from, to } = redirects[at]!;
    return withRedirects(site, redirects.toSpliced(at, 1), {
      name: 'redirect.add',
      redirect,
      after: redirects[at - 1]?.id ?? null,
      from,
      to,
    });
  },

  cells: ({ redirect }) => [`redirect:${redirect}.there`],

  words: ({ redirect }, site) => `removed the redirect from ${addressOf(site, redirect)}`,
});

function checkRedirect(site: Site, made: Redirect): Refusal | null {
  const { from, to } = made;
  const page = isPattern(made) ? null : pageWithAddress(site, from);
  if (page !== null) return refuse('redirect-in-use', { address: from, page });
  if (to !== 'gone' && 'page' in to && maybeNodeAt(site, to.page)?.type !== 'page')
    return refuse('redirect-to-no-page', { page: to.page });
  return null;
}

const withRedirects = (site: Site, redirects: readonly Redirect[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: withSettings(site, { ...site.settings, redirects }),
  inverse: [inverse],
  touched: [],
});

const addressOf = (site: Site, redirect: RedirectId): string =>
  site.settings.redirects.find(({ id }) => id === redirect)?.from ?? 'an address';

const destinationWords = (site: Site, to: Destination): string =>
  to === 'gone' ? 'nowhere any more' : 'page' in to ? `to ${quoted(site, to.page)}` : `to ${to.url}`;
