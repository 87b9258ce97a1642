import type { IncomingHttpHeaders } from 'node:http';

/** Whether a request says that it comes from the pages of the server that it is sent to. */
export const isOwnOrigin = ({ origin, host }: IncomingHttpHeaders): boolean =>
  origin !== undefined && host !== undefined && URL.canParse(origin) && new URL(origin).host === host;
