import { useCallback, useInsertionEffect, useRef } from 'react';

/**
 * A function, the same always, that gives the value as it was drawn last: for what is done later, by a key or the
 * pointer. It must not be called while drawing.
 */
export function useLatest<Value>(value: Value): () => Value {
  const ref = useRef(value);
  useInsertionEffect(() => {
    ref.current = value;
  });
  return useCallback(() => ref.current, []);
}
