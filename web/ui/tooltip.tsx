import { Tooltip as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export const TooltipProvider = Radix.Provider;

/** Words beside what the pointer or the focus is on. */
export function Tooltip({ text, children }: { readonly text: string; readonly children: ReactNode }) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-w-72 rounded-md bg-ink px-2 py-1 text-small text-paper shadow-sheet"
        >
          {text}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
