import { z } from 'zod';

/** How the latest look at a whole site stands; while another one is under way the report is that of the one before. */
export const lookAnswerOf = <Report extends z.ZodType>(report: Report) =>
  z.object({
    state: z.enum(['none', 'running', 'stopped', 'failed', 'done']),
    addressesRead: z.number(),
    /** How many addresses it knows of so far. */
    addressesKnown: z.number(),
    report: report.nullable(),
  });
