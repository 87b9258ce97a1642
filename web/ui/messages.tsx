import { useEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { Toaster, toast } from 'sonner';

/** What shows messages of a few seconds in a corner; `onShown` is called when it stands there. */
function Messages({ onShown }: { readonly onShown: () => void }) {
  useEffect(onShown, [onShown]);
  return (
    <Toaster
      position="bottom-left"
      offset={{ bottom: '4rem' }}
      toastOptions={{
        // What is told lies over rows that somebody may be about to click: the click goes through to them.
        className: '!pointer-events-none !bg-raised !text-ink !border-edge !font-sans !text-body',
        classNames: {
          actionButton: '!pointer-events-auto !bg-accent !text-on-accent',
          cancelButton: '!pointer-events-auto !bg-sunken !text-ink',
        },
        duration: 7000,
      }}
    />
  );
}

/** Puts the place of the messages beside the application, and gives what tells them as soon as it stands there. */
export const placeMessages = (): Promise<typeof toast> =>
  new Promise((resolve) => {
    const place = document.body.appendChild(document.createElement('div'));
    createRoot(place).render(<Messages onShown={() => resolve(toast)} />);
  });
