import { useCallback } from 'react';
import useSWR, { mutate } from 'swr';
import type { z } from 'zod';
import type { AnswerOf } from '#contract/routes.ts';
import { call } from './client.ts';
import { useSession } from './session.ts';

const KEY = '/preferences';
const IN_PAGE = '/preferences/in-page';
const WRITE_AFTER_MS = 500;
const waiting = new Map<string, number>();

/**
 * One of the person's own settings, kept on the server: it is the same in every browser. What does not have the shape
 * that is expected (it may come from another version) counts as not set. Setting it shows at once and is sent a moment
 * later, the latest value only. Who has no account has settings for as long as the page is open.
 */
export function usePreference<Value>(
  name: string,
  schema: z.ZodType<Value>,
  otherwise: Value,
): [Value, (value: Value) => void] {
  const isKnown = useSession()?.account != null;
  const { data } = useSWR(
    isKnown ? KEY : IN_PAGE,
    async (): Promise<AnswerOf<'showPreferences'>['preferences']> =>
      isKnown ? (await call('showPreferences')).preferences : {},
    { revalidateOnFocus: false, revalidateIfStale: isKnown, revalidateOnReconnect: isKnown },
  );
  const parsed = schema.safeParse(data?.[name]);
  const set = useCallback(
    (value: Value) => {
      const key = isKnown ? KEY : IN_PAGE;
      void mutate(key, (before: typeof data) => ({ ...before, [name]: value as never }), { revalidate: false });
      if (!isKnown) return;
      window.clearTimeout(waiting.get(name));
      const send = () =>
        void call('setPreference', { preference: name }, { value: value as never }).catch(() => undefined);
      waiting.set(name, window.setTimeout(send, WRITE_AFTER_MS));
    },
    [name, isKnown],
  );
  return [parsed.success ? parsed.data : otherwise, set];
}
