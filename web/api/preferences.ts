import { useCallback } from 'react';
import useSWR, { mutate } from 'swr';
import type { z } from 'zod';
import { call } from './client.ts';

const KEY = '/preferences';
const WRITE_AFTER_MS = 500;
const waiting = new Map<string, number>();

/**
 * One of the person's own settings, kept on the server: it is the same in every browser. What does not have the shape
 * that is expected (it may come from another version) counts as not set. Setting it shows at once and is sent a moment
 * later, the latest value only.
 */
export function usePreference<Value>(
  name: string,
  schema: z.ZodType<Value>,
  otherwise: Value,
): [Value, (value: Value) => void] {
  const { data } = useSWR(KEY, () => call('showPreferences').then((answer) => answer.preferences), {
    revalidateOnFocus: false,
  });
  const parsed = schema.safeParse(data?.[name]);
  const set = useCallback(
    (value: Value) => {
      void mutate(KEY, (before: typeof data) => ({ ...before, [name]: value as never }), { revalidate: false });
      window.clearTimeout(waiting.get(name));
      const send = () =>
        void call('setPreference', { preference: name }, { value: value as never }).catch(() => undefined);
      waiting.set(name, window.setTimeout(send, WRITE_AFTER_MS));
    },
    [name],
  );
  return [parsed.success ? parsed.data : otherwise, set];
}
