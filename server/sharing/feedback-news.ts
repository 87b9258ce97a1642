import { EventEmitter } from 'node:events';

/** Passes on, within this process, that something was said of a site's plan. */
export class FeedbackNews {
  readonly #emitter = new EventEmitter().setMaxListeners(0);

  /** Is told each time for that site. Gives the function that ends it. */
  on(site: string, listener: () => void): () => void {
    this.#emitter.on(site, listener);
    return () => void this.#emitter.off(site, listener);
  }

  tell(site: string): void {
    this.#emitter.emit(site);
  }
}
