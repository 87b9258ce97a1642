import { z } from 'zod';
import { DIRECTIONS } from '#core/drawing/map-layout.ts';
import { usePreference } from '../api/preferences.ts';

const optionsSchema = z.object({ direction: z.enum(DIRECTIONS), hasMinimap: z.boolean() });
export type MapOptions = z.infer<typeof optionsSchema>;
const AT_FIRST: MapOptions = { direction: 'across', hasMinimap: true };

/** How the person likes maps drawn. */
export const useMapOptions = () => usePreference('map', optionsSchema, AT_FIRST);
