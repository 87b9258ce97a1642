import { EventEmitter } from 'node:events';

/** Passes on, within this process, what is new of a site for those who look at it now. */
export class SiteNews<News = void> {
  readonly #emitter = new EventEmitter().setMaxListeners(0);

  /** Is told each time for that site. Gives the function that ends it. */
  on(site: string, listener: (news: News) => void): () => void {
    this.#emitter.on(site, listener);
    return () => void this.#emitter.off(site, listener);
  }

  tell(site: string, news: News): void {
    this.#emitter.emit(site, news);
  }
}
