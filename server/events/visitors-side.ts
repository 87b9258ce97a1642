import { nanoid } from 'nanoid';
import { ASK_CHANNEL, VISITORS_SIDE, tell } from '../database/channels.ts';
import type { Database } from '../database/connect.ts';
import { listenersNamed } from '../database/listen.ts';

/** A process that has not confirmed by then is given up. It keeps five seconds at most to make pages ready. */
const PATIENCE_MS = 10_000;
/** Which processes are left is looked at so often: one that ends does not confirm. */
const LOOK_EVERY_MS = 500;

/** Waits, in a workbench process, until all visitors' processes have taken over what they were told. */
export class VisitorsSide {
  readonly #database: Database;
  readonly #patienceMs: number;
  readonly #waiting = new Map<string, (process: number) => void>();

  constructor(database: Database, patienceMs = PATIENCE_MS) {
    this.#database = database;
    this.#patienceMs = patienceMs;
  }

  /** Takes what a process has confirmed: the payload of `TAKEN_CHANNEL`. */
  readonly hear = (told: string): void => {
    const [question = '', process] = told.split(' ');
    this.#waiting.get(question)?.(Number(process));
  };

  /**
   * Waits until each of them has what was told of a site before this call.
   * @returns how many had not confirmed when patience was at its end; 0 as a rule. Where the database went away, so that nobody can be
   *   asked, one at least: what was saved before is saved, and that is what the caller has to say
   */
  async hasTaken(site: string): Promise<number> {
    let left = new Set<number>();
    const question = nanoid();
    const end = Date.now() + this.#patienceMs;
    try {
      left = new Set(await this.#processes());
      if (left.size === 0) return 0;
      let look: NodeJS.Timeout | undefined;
      await new Promise<void>((resolve, reject) => {
        this.#waiting.set(question, (process) => {
          left.delete(process);
          if (left.size === 0) resolve();
        });
        look = setInterval(() => {
          if (Date.now() > end) return resolve();
          this.#processes()
            .then((there) => {
              for (const process of left) if (!there.includes(process)) left.delete(process);
              if (left.size === 0) resolve();
            })
            .catch(reject);
        }, LOOK_EVERY_MS);
        tell(this.#database, ASK_CHANNEL, [`${question} ${site}`]).catch(reject);
      }).finally(() => clearInterval(look));
    } catch {
      return Math.max(left.size, 1);
    } finally {
      this.#waiting.delete(question);
    }
    return left.size;
  }

  #processes(): Promise<number[]> {
    return listenersNamed(this.#database, VISITORS_SIDE);
  }
}
