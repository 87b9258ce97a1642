import { z } from 'zod';
import { MOST_AUDIENCES, audienceIdSchema } from '#core/model/audience.ts';

const moment = z.iso.datetime();
const name = z.string().trim().min(1, 'Type a name.').max(100);
const audiences = z.array(audienceIdSchema).max(MOST_AUDIENCES);

/** The account of a visitor of a site; it opens nothing in the workbench. */
export const visitorAnswer = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  audiences: z.array(audienceIdSchema),
  isSuspended: z.boolean(),
  lastSignInAt: moment.nullable(),
});
export type VisitorAnswer = z.infer<typeof visitorAnswer>;
export const visitorsAnswer = z.object({ visitors: z.array(visitorAnswer) });

export const makeVisitorBody = z.strictObject({
  name,
  email: z.email('Type a mail address, such as you@school.example.').max(200),
  password: z.string().min(10, 'Use at least 10 characters.').max(200),
  audiences: audiences.default([]),
});
/** What is left out stays as it is. */
export const setVisitorBody = z.strictObject({ name, audiences, isSuspended: z.boolean() }).partial();
