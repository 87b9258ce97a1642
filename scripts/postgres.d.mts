/** What `postgres.mjs` gives to programs in TypeScript. */
export interface PrivatePostgres {
  readonly url: (database: string) => string;
  /** Starts it again where it has ended; whether it had. */
  readonly revive: () => boolean;
  readonly stop: () => void;
}
/** A cluster that follows another. */
export interface PrivateStandby {
  readonly url: (database: string) => string;
  readonly start: () => void;
  readonly stop: () => void;
}
export function startStandby(primary: Pick<PrivatePostgres, 'url'>, folder: string): Promise<PrivateStandby>;
export function startPostgres(dataFolder: string, options?: { isForTests?: boolean }): Promise<PrivatePostgres>;
export function ensureDatabase(server: PrivatePostgres, name: string, anew: boolean): Promise<string>;
export function dataFolder(): string;
