import { z } from 'zod';
import { usePreference } from '../api/preferences.ts';

const savedSchema = z.array(
  z.object({
    name: z.string().min(1).max(60),
    query: z.string().max(300),
    filter: z.record(z.string(), z.array(z.string().max(100)).max(50)),
    isFlat: z.boolean(),
  }),
);
export type SavedFilter = z.infer<typeof savedSchema>[number];

const NONE: SavedFilter[] = [];

/** The filters that the person has saved under a name, for all sites. */
export const useSavedFilters = () => usePreference('filters', savedSchema, NONE);
