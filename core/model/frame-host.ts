import { z } from 'zod';

export const MAX_FRAME_HOSTS = 50;

/** A host whose frames pages may show: its name, with a port where it has one, as it stands in an address. */
export const frameHostSchema = z
  .string()
  .max(253)
  .regex(/^[a-z0-9-]+(?:\.[a-z0-9-]+)+(?::\d{1,5})?$/, 'a host is named as in an address, such as player.example');
