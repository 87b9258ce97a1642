import { request } from 'node:http';

/** What is answered to a path that is sent as it is, without being made a sound one first. */
export const askAsItStands = (
  origin: string,
  path: string,
): Promise<{ status: number; location: string | undefined; hostile: unknown }> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(origin);
    request({ hostname, port, path }, (answer) => {
      answer.resume();
      const { location, 'x-hostile': hostile } = answer.headers;
      resolve({ status: answer.statusCode!, location, hostile });
    })
      .on('error', reject)
      .end();
  });
