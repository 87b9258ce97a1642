import { z } from 'zod';
import { pageIdSchema } from './ids.ts';
import { letGoSchema } from './old-page.ts';
import { targetSchema } from './target.ts';

export const redirectIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a redirect is 1 to 24 letters and digits')
  .brand<'RedirectId'>();
export type RedirectId = z.infer<typeof redirectIdSchema>;

export const MAX_REDIRECTS = 5_000;
export const MAX_REDIRECT_ADDRESS_LENGTH = 500;

/** Where a redirect leads: to a page, wherever it stands then, to an outside address, or nowhere (`gone`). */
export const destinationSchema = z.union([targetSchema, z.literal('gone')]);
export type Destination = z.infer<typeof destinationSchema>;

/** An address of the site as it stands in a redirect: rooted, without a slash at its end; `/*` at the end takes in all below. */
export const redirectAddressSchema = z
  .string()
  .max(MAX_REDIRECT_ADDRESS_LENGTH, `at most ${MAX_REDIRECT_ADDRESS_LENGTH} characters`)
  .regex(
    /^\/(?!\*$)[^\s*#]+[^\s*#/](\/\*)?$|^\/[^\s*#/](\/\*)?$/u,
    "an address of this site begins with '/' and has no spaces; '/*' stands at its end only",
  )
  .refine((address) => !/(^|\/)\.{1,2}(\/|$)/.test(address), "an address has no step '.' or '..'");

export const redirectSchema = z.strictObject({
  id: redirectIdSchema,
  from: redirectAddressSchema,
  to: destinationSchema,
});
/** A redirect that somebody made by hand. */
export type Redirect = Readonly<z.infer<typeof redirectSchema>>;

/** Where the address of a page leads that was taken down: to a page or nowhere; null for the page above it. */
export const leadsToSchema = letGoSchema.nullable();
export type LeadsTo = Readonly<z.infer<typeof leadsToSchema>>;

/** Where pages lead that are taken down, by page; the page above where one is not named. */
export const leadsToByPageSchema = z.record(pageIdSchema, letGoSchema);

/** Whether a redirect takes in all addresses below one. */
export const isPattern = ({ from }: Pick<Redirect, 'from'>): boolean => from.endsWith('/*');
