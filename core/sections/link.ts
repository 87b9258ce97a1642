import { z } from 'zod';
import { pageOfLink } from '../model/content.ts';

export const MAX_TARGET_LENGTH = 2000;

/** Where a link within a text may lead: to a page of the site, to an outside address, a mail address or a telephone. */
export const linkSchema = z
  .string()
  .refine((href) => pageOfLink(href) !== null || /^(https?:\/\/[^\s]+|mailto:[^\s]+|tel:[+0-9 ()-]+)$/i.test(href), {
    error: "A link leads to a page of the site, or begins with 'https://', 'mailto:' or 'tel:'.",
  });
