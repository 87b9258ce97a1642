/** Tells where the mouse or the finger is, in pixels of the window, until the function that it gives is called. */
export function followPointer(tell: (x: number, y: number) => void): () => void {
  const follow = ({ clientX, clientY }: { clientX: number; clientY: number }) => tell(clientX, clientY);
  const followTouch = (event: TouchEvent) => event.touches[0] && follow(event.touches[0]);
  window.addEventListener('mousemove', follow);
  window.addEventListener('touchmove', followTouch);
  return () => {
    window.removeEventListener('mousemove', follow);
    window.removeEventListener('touchmove', followTouch);
  };
}
