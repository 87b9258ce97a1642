import { z } from 'zod';
import { DIRECTIONS, type Direction } from '#core/drawing/map-layout.ts';
import { usePreference } from '../api/preferences.ts';

const directionSchema = z.enum(DIRECTIONS);

/** Which way the person likes maps to grow. */
export const useDirection = () => usePreference<Direction>('map.direction', directionSchema, 'across');
