import { type ComponentType, Suspense, lazy, useState, useSyncExternalStore } from 'react';
import { Contained, NotFetched } from './contained.tsx';

/** What is fetched when the first rows stand on the screen, in the order in which it was named. */
const rest: (() => Promise<unknown>)[] = [];

const notFetched = (fault: unknown): never => {
  throw new NotFetched('A part of the screen could not be fetched.', { cause: fault });
};

/** A whole screen, fetched when somebody goes to it. */
export const screen = <Props extends object>(load: () => Promise<ComponentType<Props>>) =>
  lazy(() => load().then((part) => ({ default: part }), notFetched));

/**
 * A part of the screen that the first rows do not need: its script is fetched after them, or as soon as it is asked for.
 * Until it is here its place is empty and said to be busy.
 */
export function later<Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  let loaded: ComponentType<Props> | null = null;
  const fetched = () =>
    load().then((part) => {
      loaded = part;
      return { default: part };
    }, notFetched);
  rest.push(fetched);
  return function Later(props: Props) {
    // What is here already is drawn at once: nothing flickers, and the focus can go there.
    const [Part] = useState<ComponentType<Props>>(() => loaded ?? lazy(fetched));
    // A dialog that fails has to be closed in another way than its own.
    const { onClose } = props as { readonly onClose?: () => void };
    return (
      <Contained onClose={onClose}>
        <Suspense fallback={<div aria-busy="true" className="min-h-0 flex-1" />}>
          <Part {...props} />
        </Suspense>
      </Contained>
    );
  };
}

/** Something that is no part of the screen, fetched like one. @returns a hook that gives it, or null until it is here */
export function laterValue<Value>(load: () => Promise<Value>): () => Value | null {
  let value: Value | null = null;
  let asked: Promise<void> | null = null;
  const listeners = new Set<() => void>();
  const fetched = () =>
    (asked ??= load().then(
      (given) => {
        value = given;
        for (const tell of listeners) tell();
      },
      // It is asked for again by who comes next.
      () => {
        asked = null;
      },
    ));
  rest.push(fetched);
  const subscribe = (tell: () => void) => {
    listeners.add(tell);
    void fetched();
    return () => listeners.delete(tell);
  };
  return function useLaterValue() {
    return useSyncExternalStore(subscribe, () => value);
  };
}

/** Something else to be fetched after the first rows. */
export const alsoLater = (fetched: () => Promise<unknown>): void => void rest.push(fetched);

/**
 * Fetches everything that was left for later, one after the other, so that nothing that is asked for meanwhile waits long. The
 * document says when all of it is here (`data-rest`).
 */
export async function fetchTheRest(): Promise<void> {
  for (const fetched of rest) await fetched().catch(() => undefined);
  document.documentElement.dataset.rest = 'here';
}
