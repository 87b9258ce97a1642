import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { starterSchema } from '#core/starters/starter-file.ts';

export const starterAnswer = z.object({
  id: z.string(),
  /** Whether Spur ships it: such a one cannot be deleted. */
  isShipped: z.boolean(),
  starter: starterSchema,
});
export type StarterAnswer = z.infer<typeof starterAnswer>;
export const startersAnswer = z.object({ starters: z.array(starterAnswer) });

/** A starter from its file. */
export const bringStarterBody = z.strictObject({ starter: starterSchema });
/** A starter of a branch of a site, or of the whole tree. */
export const saveStarterBody = z.strictObject({
  page: pageIdSchema.nullable(),
  name: z.string().trim().min(1, 'Type a name.').max(100),
  description: z.string().max(500).default(''),
});
