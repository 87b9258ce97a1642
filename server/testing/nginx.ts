import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, untilItAnswers } from './web-server.ts';

export interface RunningNginx {
  readonly origin: string;
  readonly reload: () => void;
  readonly close: () => Promise<void>;
}

/** Starts nginx with one server on a port of its own, and waits until it answers. @param http, server what stands in its two blocks */
export async function startNginx(program: string, http: string, server: string): Promise<RunningNginx> {
  const top = mkdtempSync(join(tmpdir(), 'spur-nginx-'));
  const port = await freePort();
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
    (name) => `${name}_temp_path ${top}/${name};`,
  );
  writeFileSync(
    join(top, 'nginx.conf'),
    `${process.getuid?.() === 0 ? 'user root;\n' : ''}worker_processes 1;
pcre_jit on;
pid ${top}/nginx.pid;
error_log ${top}/error.log;
events { worker_connections 1024; }
http {
access_log off;
sendfile on;
tcp_nopush on;
keepalive_requests 1000000;
${temporary.join('\n')}
${http}
server {
listen 127.0.0.1:${port};
${server}
}
}
`,
  );
  const child = spawn(
    program,
    ['-p', top, '-c', join(top, 'nginx.conf'), '-e', join(top, 'error.log'), '-g', 'daemon off;'],
    {
      stdio: 'inherit',
    },
  );
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const origin = `http://127.0.0.1:${port}`;
  await untilItAnswers('nginx', origin, child);
  return {
    origin,
    reload: () => child.kill('SIGHUP'),
    close: async () => {
      child.kill('SIGQUIT');
      await ended;
      rmSync(top, { recursive: true, force: true });
    },
  };
}
