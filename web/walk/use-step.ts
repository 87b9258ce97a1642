import { type RefObject, useEffect, useRef } from 'react';
import { useSession } from '../api/session.ts';

/**
 * Leads a walk in a frame to a path, and tells where it goes by itself, so that several can go in step.
 * @param address where the walk begins; null while that is not known @param path below it, from `/` on
 */
export function useStep(
  frame: RefObject<HTMLIFrameElement | null>,
  address: string | null,
  path: string,
  onGo: (path: string) => void,
): void {
  const liveOrigin = useSession()?.liveOrigin;
  const came = useRef(path);
  const told = useRef(onGo);
  useEffect(() => {
    told.current = onGo;
  });
  useEffect(() => {
    const listener = (event: MessageEvent) => {
      if (event.origin !== liveOrigin || event.source !== frame.current?.contentWindow) return;
      const { walk } = event.data as { walk?: unknown };
      if (typeof walk !== 'string' || walk === came.current) return;
      came.current = walk;
      told.current(walk);
    };
    window.addEventListener('message', listener);
    return () => window.removeEventListener('message', listener);
  }, [frame, liveOrigin]);
  // Another walk begins on the page where the one before was.
  useEffect(() => {
    if (address !== null && frame.current) frame.current.src = address + encodeURI(came.current.slice(1));
  }, [frame, address]);
  // Another walk went to a page: this one follows, unless it stands there already.
  useEffect(() => {
    if (address === null || !frame.current || came.current === path) return;
    came.current = path;
    frame.current.src = address + encodeURI(path.slice(1));
  }, [frame, address, path]);
}
