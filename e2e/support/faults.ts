import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { ensureDatabase, startPostgres } from '#scripts/postgres.mjs';
import { type Answered, JointWriter } from '#server/testing/joint-writer.ts';
import { freePort } from '#server/testing/web-server.ts';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const EMAIL = 'ines@pellow-quay.example';
const PASSWORD = 'slipway-42';
const SITE = 'pellow-quay';
/** The page whose text several write in. */
const TEXT = 'pair';

/** What happened in some rounds of killing. */
export interface FaultReport {
  readonly rounds: number;
  /** Edits, releases and releases to come that were acknowledged. */
  readonly acknowledged: number;
  /** Acknowledged edits whose page is not there afterwards. */
  readonly lost: string[];
  /** How often the crawler read both pages of a pair, and which answers were of two releases. */
  readonly reads: number;
  readonly mixed: string[];
  readonly releases: number;
  /** Releases to come that were made more than once, or not at all. */
  readonly notOnce: string[];
  /** Whether the ways back of the log lead to the tree that was there before the first fault. */
  readonly leadsBack: boolean;
  /** Processes that ended though nobody killed them. */
  readonly diedAlone: string[];
  /** Words that were taken of those who write in one text, those of them that are not in it once, and whether all copies end equal. */
  readonly words: number;
  readonly lostWords: string[];
  readonly isOneText: boolean;
}

/**
 * Runs Spur with two workbench processes and the visitors' side, and a PostgreSQL of its own that writes durably; lets clients edit,
 * release and set releases to come, and a crawler read all the time; and kills one of the four by SIGKILL at random moments.
 * `random` gives numbers from 0 to 1.
 */
export async function killAtRandom(rounds: number, clients: number, random: () => number): Promise<FaultReport> {
  const folder = mkdtempSync(join(tmpdir(), 'spur-faults-'));
  chmodSync(folder, 0o755);
  const postgres = await startPostgres(folder);
  try {
    return await run(postgres, folder, await ensureDatabase(postgres, 'faults', true), { rounds, clients, random });
  } finally {
    postgres.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

interface Asked {
  readonly rounds: number;
  readonly clients: number;
  readonly random: () => number;
}
type Postgres = Awaited<ReturnType<typeof startPostgres>>;

async function run(
  postgres: Postgres,
  folder: string,
  url: string,
  { rounds, clients, random }: Asked,
): Promise<FaultReport> {
  const ports = (await Promise.all([1, 2, 3, 4, 5].map(freePort))) as [number, number, number, number, number];
  const [one, other, livePort, oldSite, directory] = ports;
  const env = (port: number) => ({
    ...process.env,
    DATABASE_URL: url,
    SPUR_PORT: String(port),
    SPUR_LIVE_PORT: String(livePort),
    SPUR_OLD_SITE_PORT: String(oldSite),
    SPUR_DIRECTORY_PORT: String(directory),
    NODE_ENV: 'production',
    SPUR_LOG: 'silent',
  });
  // The first start makes the demo site; from then on the processes come without it.
  const servers = {
    one: await start('workbench/main.js', { ...env(one), SPUR_DEMO: 'yes' }),
    other: await start('workbench/main.js', env(other)),
    live: await start('live/main.js', env(livePort)),
  };
  const revive = {
    one: () => start('workbench/main.js', env(one)),
    other: () => start('workbench/main.js', env(other)),
    live: () => start('live/main.js', env(livePort)),
  };
  const origins = [`http://127.0.0.1:${one}`, `http://127.0.0.1:${other}`];
  const diedAlone: string[] = [];
  let isEnding = false;
  let acknowledged = 0;
  const added = new Map<string, string>();
  const scheduled: string[] = [];

  const client = async (number: number) => {
    let cookie = '';
    let count = 0;
    const send = async (path: string, body: object): Promise<Response | null> => {
      const origin = origins[count % 2]!;
      const answer = await fetch(origin + path, {
        method: 'POST',
        headers: { Origin: origin, 'Content-Type': 'application/json', ...(cookie && { Cookie: cookie }) },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(10_000),
      }).catch(() => null);
      return answer;
    };
    while (!isEnding) {
      count++;
      if (cookie === '') {
        const signedIn = await send('/api/session', { email: EMAIL, password: PASSWORD });
        cookie = signedIn?.ok ? signedIn.headers.getSetCookie()[0]!.split(';')[0]! : '';
        if (cookie === '') await pause(100);
        continue;
      }
      const page = `f${number}x${count}`;
      const title = `Page ${page}`;
      const kind = count % 40 === 4 ? 4 : count % 5 === 3 ? 3 : 0;
      if (kind < 3) {
        const made = await send(`/api/sites/${SITE}/operations`, {
          operations: [{ name: 'page.add', page, place: { parent: null }, title: { en: title } }],
        });
        if (made?.ok) {
          added.set(page, title);
          acknowledged++;
        } else if (made?.status === 401) cookie = '';
        await made?.arrayBuffer().catch(() => undefined);
      } else if (kind === 3) {
        // Both pages of the pair are renamed by one release: a crawler sees both or neither.
        const word = `word${number}n${count}`;
        const renamed = await send(`/api/sites/${SITE}/operations`, {
          operations: ['left', 'right'].map((one) => ({
            name: 'page.set',
            page: one,
            fields: { description: { en: word } },
          })),
        });
        const released = renamed?.ok
          ? await send(`/api/sites/${SITE}/releases`, { pages: ['left', 'right'], settings: [] })
          : null;
        if (released?.ok) acknowledged++;
      } else {
        const set = await send(`/api/sites/${SITE}/scheduled-releases`, {
          pages: [...added.keys()].slice(-3),
          settings: [],
          at: new Date(Date.now() + 1500).toISOString(),
          name: `S${number}x${count}`,
        });
        if (set?.ok) {
          scheduled.push(`S${number}x${count}`);
          acknowledged++;
        }
      }
      await pause(15);
    }
  };

  let reads = 0;
  const mixed: string[] = [];
  const crawler = async () => {
    // The section's page names what stands below it with their descriptions: both are of one release.
    while (!isEnding) {
      const answer = await fetch(`http://127.0.0.1:${livePort}/${SITE}/pair`, { signal: AbortSignal.timeout(5000) })
        .then((one) => (one.ok ? one.text() : null))
        .catch(() => null);
      if (answer === null) {
        await pause(20);
        continue;
      }
      const words = [...answer.matchAll(/<p>(word\w+|first)<\/p>/g)].map(([, word]) => word);
      reads++;
      if (words.length !== 2 || words[0] !== words[1]) mixed.push(words.join(' and '));
      await pause(3);
    }
  };

  const beginning = await preparePair(origins[0]!);
  const writers = Array.from({ length: clients }, (_, number) => new TextWriter(number, origins));
  const write = async (writer: TextWriter) => {
    while (!isEnding) {
      writer.write();
      // Now and then somebody is cut off for a while, and writes on.
      if (Math.random() < 0.9) await writer.exchange();
      await pause(60);
    }
  };
  const working = [
    ...Array.from({ length: clients }, (_, number) => client(number)),
    ...writers.map((writer) => write(writer)),
    crawler(),
  ];
  const victims = ['one', 'other', 'live', 'postgres'] as const;
  for (let round = 0; round < rounds; round++) {
    await pause(300 + random() * 700);
    const victim = victims[Math.floor(random() * victims.length)]!;
    if (victim === 'postgres') await killPostgres(postgres, folder);
    else {
      if (hasEnded(servers[victim])) diedAlone.push(`${victim}: ${lastWords.get(servers[victim]) ?? ''}`);
      else await killed(servers[victim]);
      servers[victim] = await revive[victim]();
    }
  }
  await pause(3500);
  isEnding = true;
  await Promise.all(working);
  // All send what is left, and hear of what the others sent.
  for (const isLast of [false, true]) for (const writer of writers) await writer.settle(isLast);
  const database = new pg.Client({ connectionString: url });
  await database.connect();
  const there = new Set(
    (await database.query('SELECT id FROM node WHERE site = $1', [SITE])).rows.map((row) => row.id),
  );
  // What a process had taken that died is made by another within a minute.
  const stillWaiting = async () =>
    (await database.query(`SELECT 1 FROM scheduled_release WHERE state = 'waiting'`)).rowCount ?? 0;
  for (const end = Date.now() + 60_000; Date.now() < end && (await stillWaiting()) > 0;) await pause(200);
  const made = new Map<string, number>();
  for (const { name: title } of (await database.query('SELECT name FROM release WHERE site = $1', [SITE])).rows)
    made.set(title, (made.get(title) ?? 0) + 1);
  const settled = new Map(
    (await database.query('SELECT name, state, fault FROM scheduled_release')).rows.map((row) => [row.name, row]),
  );
  const notOnce = scheduled.flatMap((title) => {
    const times = made.get(title) ?? 0;
    const { state, fault } = settled.get(title) ?? { state: 'not there', fault: null };
    // Where another release had taken its pages live before, nothing was left to do: it says so, and is not made.
    const isRight = state === 'failed' ? times === 0 : state === 'done' && times === 1;
    return isRight ? [] : [`${title}: ${state}${fault === null ? '' : ` (${fault})`}, made ${times} times`];
  });
  const { document } = (
    await database.query(
      'SELECT document FROM content JOIN node ON node.site = content.site AND node.content = content.id WHERE node.site = $1 AND node.id = $2',
      [SITE, TEXT],
    )
  ).rows[0];
  const onPage = JSON.stringify(document);
  const taken = writers.flatMap((writer) => writer.taken);
  const lostWords = taken.filter((word) => onPage.split(`[${word}]`).length !== 2);
  const isOneText = new Set(writers.map(({ text }) => text)).size === 1;
  const releases = Number((await database.query('SELECT count(*) FROM release')).rows[0].count);
  await database.end();
  const treeAgain = await beginning.tree(origins[0]!);
  for (const [which, server] of Object.entries(servers))
    if (hasEnded(server)) diedAlone.push(`${which}: ${lastWords.get(server) ?? ''}`);
  for (const server of Object.values(servers)) server.kill('SIGTERM');
  await Promise.all(
    Object.values(servers).map((server) =>
      hasEnded(server) ? null : new Promise((resolve) => server.once('exit', resolve)),
    ),
  );
  return {
    rounds,
    acknowledged,
    lost: [...added.keys()].filter((page) => !there.has(page)),
    reads,
    mixed,
    releases,
    notOnce,
    leadsBack: treeAgain === beginning.before,
    diedAlone,
    words: taken.length,
    lostWords,
    isOneText,
  };
}

/** One of several who write in one text, through one process or the other. */
class TextWriter {
  /** The words that some process has acknowledged. */
  readonly taken: string[] = [];
  readonly #number: number;
  readonly #origins: readonly string[];
  readonly #writer: JointWriter;
  #cookie = '';
  #count = 0;
  #sent = 0;
  #waiting: string[] = [];

  constructor(number: number, origins: readonly string[]) {
    this.#number = number;
    this.#origins = origins;
    this.#writer = new JointWriter((body) => this.#post(`/api/sites/${SITE}/texts/page/${TEXT}/joint`, body));
  }

  get text(): string {
    return this.#writer.text;
  }

  write(): void {
    if (this.#writer.base === null) return;
    const word = `${this.#number}-${++this.#count}`;
    this.#writer.insert(word, Math.random());
    this.#waiting.push(word);
  }

  async exchange(save = false): Promise<boolean> {
    const count = this.#waiting.length;
    const answer = await this.#writer.exchange({ save });
    if (answer?.status === 401) this.#cookie = '';
    if (answer?.status !== 200) return false;
    this.taken.push(...this.#waiting.splice(0, count));
    return true;
  }

  /** Sends what waits until it is taken. */
  async settle(isLast: boolean): Promise<void> {
    while (!(await this.exchange(isLast))) await pause(100);
  }

  async #post(path: string, body: object): Promise<Answered | null> {
    const origin = this.#origins[this.#sent++ % this.#origins.length]!;
    const post = async (to: string, what: object) =>
      fetch(origin + to, {
        method: 'POST',
        headers: { Origin: origin, 'Content-Type': 'application/json', ...(this.#cookie && { Cookie: this.#cookie }) },
        body: JSON.stringify(what),
        signal: AbortSignal.timeout(10_000),
      }).catch(() => null);
    if (this.#cookie === '') {
      const signedIn = await post('/api/session', { email: EMAIL, password: PASSWORD });
      this.#cookie = signedIn?.ok ? signedIn.headers.getSetCookie()[0]!.split(';')[0]! : '';
    }
    const answer = this.#cookie === '' ? null : await post(path, body);
    return answer && { status: answer.status, json: await answer.json().catch(() => null) };
  }
}

/** Two pages below one that lists them with their descriptions, live. */
async function preparePair(origin: string): Promise<{ before: string; tree: (origin: string) => Promise<string> }> {
  const headers = { Origin: origin, 'Content-Type': 'application/json' };
  const signedIn = await fetch(`${origin}/api/session`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ email: EMAIL, password: PASSWORD }),
  });
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const post = async (path: string, body: object) => {
    const answer = await fetch(origin + path, {
      method: 'POST',
      headers: { ...headers, Cookie: cookie },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  };
  await post(`/api/sites/${SITE}/operations`, {
    operations: ['pair', 'left', 'right'].map((page) => ({
      name: 'page.add',
      page,
      place: { parent: page === 'pair' ? null : 'pair' },
      title: { en: page },
      description: { en: page === 'pair' ? 'Two pages' : 'first' },
    })),
  });
  await post(`/api/sites/${SITE}/releases`, { pages: ['pair', 'left', 'right'], settings: [] });
  const get = (at: string, query = '') =>
    fetch(`${at}/api/sites/${SITE}/tree${query}`, { headers: { Cookie: cookie } }).then((answer) => answer.json());
  const { revision } = (await get(origin)) as { revision: number };
  /** What each page was at that revision, by its id: those that were removed come in any order. */
  const tree = async (at: string) => {
    const { nodes, live } = (await get(at, `?revision=${revision}`)) as {
      nodes: Record<'id' | 'order' | 'title' | 'content', string>;
      live: string;
    };
    const columns = [nodes.id.split(' '), nodes.order.split(' '), nodes.title.split('\n'), nodes.content.split(' ')];
    const pages = columns[0]!.map((_, row) => [...columns.map((column) => column[row]!), live[row]!]);
    return JSON.stringify(pages.sort(([one], [other]) => (one! < other! ? -1 : 1)));
  };
  return { before: await tree(origin), tree };
}

/** Kills PostgreSQL as a power cut would, and starts it again: it recovers from its log. */
async function killPostgres(postgres: Postgres, folder: string): Promise<void> {
  const pid = Number(readFileSync(join(folder, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
  process.kill(pid, 'SIGKILL');
  for (let tries = 0; ; tries++) {
    await pause(400);
    try {
      if (postgres.revive()) return;
    } catch (fault) {
      // Its children hold the memory until they see that it is gone.
      if (tries > 20) throw fault;
    }
  }
}

/** What each process said last, for one that ends though nobody killed it. */
const lastWords = new WeakMap<ChildProcess, string>();

function start(file: string, env: NodeJS.ProcessEnv): Promise<ChildProcess> {
  const child = spawn(process.execPath, [`${ROOT}dist/${file}`], { env, stdio: ['ignore', 'ignore', 'pipe', 'ipc'] });
  child.stderr!.on('data', (part: Buffer) => lastWords.set(child, `${lastWords.get(child) ?? ''}${part}`.slice(-1500)));
  return new Promise((resolve, reject) => {
    child.once('message', (message: { failed?: string; message?: string }) =>
      message.failed === undefined ? resolve(child) : reject(new Error(message.message)),
    );
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code} before it was ready.`)));
  });
}

const hasEnded = (child: ChildProcess): boolean => child.exitCode !== null || child.signalCode !== null;

const killed = (child: ChildProcess): Promise<unknown> =>
  new Promise((resolve) => {
    child.once('exit', resolve);
    child.kill('SIGKILL');
  });

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
