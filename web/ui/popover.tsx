import { Popover as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A button that opens a small sheet beside it, for choices that hold at once. */
export function Popover({
  trigger,
  label,
  align = 'start',
  className,
  isOpen,
  onOpenChange,
  focusAfter,
  children,
}: {
  readonly trigger: ReactNode;
  readonly label: string;
  readonly align?: 'start' | 'end';
  readonly className: string;
  /** For one that is closed by what is chosen in it. */
  readonly isOpen?: boolean;
  readonly onOpenChange?: (isOpen: boolean) => void;
  /** Where the keyboard goes when it closes, where that is not the button. */
  readonly focusAfter?: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Radix.Root open={isOpen} onOpenChange={onOpenChange}>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          aria-label={label}
          onCloseAutoFocus={(event) => {
            if (!focusAfter) return;
            event.preventDefault();
            focusAfter();
          }}
          className={`z-30 max-h-[min(36rem,82vh)] max-w-[calc(100vw-1rem)] overflow-y-auto rounded-lg border border-rule bg-raised shadow-sheet ${className}`}
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
