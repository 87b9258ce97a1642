import { z } from 'zod';
import { pageIdSchema } from './ids.ts';

/** Where a link points: another page of the tree (an alias), or an outside address. */
export const targetSchema = z.union([
  z.strictObject({ page: pageIdSchema }),
  z.strictObject({
    url: z
      .string()
      .max(2000, 'at most 2,000 characters')
      .regex(
        /^(https?:\/\/[^\s]+|mailto:[^\s]+|tel:[+0-9 ()-]+)$/i,
        'an outside address starts with https://, http://, mailto: or tel:',
      ),
  }),
]);
export type Target = z.infer<typeof targetSchema>;
