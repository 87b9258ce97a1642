import { useCallback, useState } from 'react';

/** The width of an element in pixels, followed as it changes; and the function that takes the element. */
export function useWidth(): [(element: HTMLElement | null) => (() => void) | undefined, number] {
  const [width, setWidth] = useState(() => window.innerWidth);
  const take = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    setWidth(element.clientWidth);
    const sizes = new ResizeObserver(() => setWidth(element.clientWidth));
    sizes.observe(element);
    return () => sizes.disconnect();
  }, []);
  return [take, width];
}
