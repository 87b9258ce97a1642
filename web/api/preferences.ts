import { useCallback, useMemo } from 'react';
import useSWR, { mutate } from 'swr';
import type { z } from 'zod';
import type { AnswerOf } from '#contract/routes.ts';
import { call } from './client.ts';
import { useSession } from './session.ts';

const KEY = '/preferences';
const IN_PAGE = '/preferences/in-page';
const WRITE_AFTER_MS = 500;
const waiting = new Map<string, number>();
/** What was set and the server has not acknowledged yet, by name. */
const unsent = new Map<string, unknown>();

type Preferences = AnswerOf<'showPreferences'>['preferences'];

/** The settings as the server has them, with what is on its way to it: an answer from before does not take that back. */
async function fetchPreferences(): Promise<Preferences> {
  const before = Object.fromEntries(unsent);
  const { preferences } = await call('showPreferences');
  return { ...preferences, ...before, ...Object.fromEntries(unsent) } as Preferences;
}

/**
 * One of the person's own settings, kept on the server: it is the same in every browser. What does not have the shape
 * that is expected (it may come from another version) counts as not set. Setting it shows at once and is sent a moment
 * later, the latest value only. The same value comes back until it is set. Who has no account has settings for as long as the page is open.
 */
export function usePreference<Value>(
  name: string,
  schema: z.ZodType<Value>,
  otherwise: Value,
): [Value, (value: Value) => void] {
  const isKnown = useSession()?.account != null;
  const { data } = useSWR(
    isKnown ? KEY : IN_PAGE,
    async (): Promise<Preferences> => (isKnown ? fetchPreferences() : {}),
    { revalidateOnFocus: false, revalidateIfStale: isKnown, revalidateOnReconnect: isKnown },
  );
  const stored = data?.[name];
  const value = useMemo(() => {
    const parsed = schema.safeParse(stored);
    return parsed.success ? parsed.data : otherwise;
  }, [stored, schema, otherwise]);
  const set = useCallback(
    (value: Value) => {
      const key = isKnown ? KEY : IN_PAGE;
      void mutate(key, (before: typeof data) => ({ ...before, [name]: value as never }), { revalidate: false });
      if (!isKnown) return;
      window.clearTimeout(waiting.get(name));
      unsent.set(name, value);
      const arrived = () => unsent.get(name) === value && unsent.delete(name);
      const send = () =>
        void call('setPreference', { preference: name }, { value: value as never }).then(arrived, arrived);
      waiting.set(name, window.setTimeout(send, WRITE_AFTER_MS));
    },
    [name, isKnown],
  );
  return [value, set];
}
