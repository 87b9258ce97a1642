import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import type { Site } from '#core/model/site.ts';
import { JOINT_FRAGMENT } from '#contract/joint-text.ts';
import { JointWriter } from '#server/testing/joint-writer.ts';
import { type Result, ms, percentile } from './measure.ts';

const PEOPLE = 50;
const WRITERS = 8;
const FOR_MS = 20_000;
/** Each writer writes a word so often; of the others one renames a page so often. */
const WORD_EVERY_MS = 400;
const EDIT_EVERY_MS = 250;

interface Asked {
  readonly url: string;
  /** Two processes of the workbench. */
  readonly origins: readonly [string, string];
  readonly cookie: string;
  readonly site: Site;
}

/** Since when something is on its way, and who does not have it yet. */
interface OnItsWay {
  readonly since: number;
  readonly lacking: Set<number>;
}

/** Notes when the last one has something. */
class Arrivals {
  readonly times: number[] = [];
  readonly #onWay = new Map<string, OnItsWay>();

  begin(what: string, lacking: Iterable<number>): void {
    this.#onWay.set(what, { since: performance.now(), lacking: new Set(lacking) });
  }
  /** Somebody has all of these, and perhaps more. */
  has(who: number, isThere: (what: string) => boolean): void {
    for (const [what, { since, lacking }] of this.#onWay) {
      if (!lacking.has(who) || !isThere(what)) continue;
      lacking.delete(who);
      if (lacking.size > 0) continue;
      this.times.push(performance.now() - since);
      this.#onWay.delete(what);
    }
  }
  get missing(): number {
    return this.#onWay.size;
  }
}

/**
 * 50 people on one site, half of them at each of two processes, eight of whom write in one text: how long it takes until the last of the
 * others has what somebody wrote, and until all have an edit, beside a row that is written and told by NOTIFY alone.
 */
export async function benchTogether({ url, origins, cookie, site }: Asked): Promise<Result[]> {
  const page = [...site.nodes.keys()].at(-1)!;
  const originOf = (who: number) => origins[who % 2]!;
  const post = async (who: number, path: string, body: object) => {
    const answer = await fetch(`${originOf(who)}/api/sites/${site.key}${path}`, {
      method: 'POST',
      headers: { Origin: originOf(who), Cookie: cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    return { status: answer.status, json: (await answer.json()) as unknown };
  };
  const words = new Arrivals();
  const edits = new Arrivals();
  const writers = Array.from({ length: WRITERS }, (_, who) => {
    const writer = new JointWriter((body) => post(who, `/texts/page/${page}/joint`, body));
    let isUnderWay = false;
    let isDueAgain = false;
    // One request at a time, as browsers do it.
    const exchange = async (): Promise<void> => {
      isDueAgain = isUnderWay;
      if (isUnderWay) return;
      isUnderWay = true;
      await writer.exchange();
      isUnderWay = false;
      const text = writer.shared.getXmlFragment(JOINT_FRAGMENT).toString();
      words.has(who, (word) => text.includes(word));
      if (isDueAgain) await exchange();
    };
    return { writer, exchange };
  });
  for (const { writer } of writers) await writer.exchange();
  const ending = new AbortController();
  const streams = Array.from({ length: PEOPLE }, async (_, who) => {
    const stream = await fetch(`${originOf(who)}/api/sites/${site.key}/events?tab=${who}`, {
      headers: { Cookie: cookie },
      signal: ending.signal,
    });
    let rest = '';
    for await (const part of stream.body!.pipeThrough(new TextDecoderStream())) {
      const events = (rest + part).split('\n\n');
      rest = events.pop()!;
      for (const event of events) {
        if (event.includes('event: joint')) void writers[who]?.exchange();
        if (event.includes('event: edit')) edits.has(who, (what) => event.includes(what));
      }
    }
  });
  for (const stream of streams) stream.catch(() => undefined);
  await pause(500);
  const end = Date.now() + FOR_MS;
  const everybody = [...Array(PEOPLE).keys()];
  const write = async (who: number) => {
    for (let count = 0; Date.now() < end; count++) {
      await pause(WORD_EVERY_MS * (0.5 + Math.random()));
      const word = `w${who}n${count}`;
      writers[who]!.writer.insert(word, Math.random());
      words.begin(
        `[${word}]`,
        everybody.slice(0, WRITERS).filter((other) => other !== who),
      );
      await writers[who]!.exchange();
    }
  };
  const rename = async () => {
    const pages = [...site.nodes.keys()];
    for (let count = 0; Date.now() < end; count++) {
      await pause(EDIT_EVERY_MS);
      const title = `Renamed ${count} of all`;
      edits.begin(title, everybody);
      const fields = { title: { en: title } };
      await post(count % 2, '/operations', { operations: [{ name: 'page.set', page: pages[count % 100], fields }] });
    }
  };
  await Promise.all([...everybody.slice(0, WRITERS).map(write), rename()]);
  await pause(3000);
  ending.abort();
  const bare = await notifyTimes(url);
  const isOneText = new Set(writers.map(({ writer }) => writer.text)).size === 1;
  const limit = percentile(bare, 0.95);
  const row = (what: string, { times, missing }: Arrivals): Result => {
    const p95 = percentile(times, 0.95);
    return {
      what: `${what}, p95 of ${times.length} (the slowest ${ms(Math.max(...times))})`,
      ours: ms(p95),
      limit: `${ms(limit)}, p95 of a row that is written and told to one listener`,
      ratio: p95 / limit,
      aim: '≤ 1 s',
      isMet: p95 <= 1000 && missing === 0 && isOneText,
    };
  };
  return [
    row(`${WRITERS} write in one text through two processes, until the others have a word`, words),
    row(
      `${PEOPLE} people on a site of ${site.nodes.size.toLocaleString('en')} pages meanwhile, until all have an edit`,
      edits,
    ),
  ];
}

/** How long it takes until a listener hears of a row that was written, in milliseconds. */
async function notifyTimes(url: string): Promise<number[]> {
  const [writer, listener] = [new pg.Client(url), new pg.Client(url)];
  await Promise.all([writer.connect(), listener.connect()]);
  await writer.query('CREATE TEMPORARY TABLE told (at int)');
  await listener.query('LISTEN spur_bench');
  const times: number[] = [];
  for (let count = 0; count < 300; count++) {
    const heard = new Promise((resolve) => listener.once('notification', resolve));
    const began = performance.now();
    await writer.query('BEGIN');
    await writer.query('INSERT INTO told VALUES ($1)', [count]);
    await writer.query(`SELECT pg_notify('spur_bench', $1)`, [String(count)]);
    await writer.query('COMMIT');
    await heard;
    times.push(performance.now() - began);
  }
  await Promise.all([writer.end(), listener.end()]);
  return times;
}
